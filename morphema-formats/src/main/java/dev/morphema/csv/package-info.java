/**
 * CSV as RFC 4180 describes it, and as it comes: other delimiters and quotes, other encodings,
 * ragged rows.
 */
@NullMarked
package dev.morphema.csv;

import org.jspecify.annotations.NullMarked;
