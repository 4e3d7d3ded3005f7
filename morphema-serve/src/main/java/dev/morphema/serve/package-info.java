/** Mappings behind HTTP. */
@NullMarked
package dev.morphema.serve;

import org.jspecify.annotations.NullMarked;
