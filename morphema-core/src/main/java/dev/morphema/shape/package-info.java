/**
 * What is known of the form of data: a {@link dev.morphema.shape.Shape}, learnt from samples or
 * given by a schema. It reads no files.
 */
@NullMarked
package dev.morphema.shape;

import org.jspecify.annotations.NullMarked;
