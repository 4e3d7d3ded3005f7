/** Fixed-width text: fields stand at the same places of each line. */
@NullMarked
package dev.morphema.fixed;

import org.jspecify.annotations.NullMarked;
