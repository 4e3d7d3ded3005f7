/**
 * The library: {@link dev.morphema.Morphema} checks and loads mappings, a {@link
 * dev.morphema.Mapping} is run on named inputs and outputs or transforms messages in memory.
 */
@NullMarked
package dev.morphema;

import org.jspecify.annotations.NullMarked;
