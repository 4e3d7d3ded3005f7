/** Workbooks of spreadsheets (Office Open XML, ECMA-376) as a format of sources and targets. */
@NullMarked
package dev.morphema.xlsx;

import org.jspecify.annotations.NullMarked;
