/** What comes with Morphema: its formats, and the functions of its language. */
@NullMarked
package dev.morphema.standard;

import org.jspecify.annotations.NullMarked;
