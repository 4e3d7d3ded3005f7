/**
 * What is known of the form of data: {@link dev.morphema.shape.Shape}, learnt from samples. It reads
 * no files.
 */
@NullMarked
package dev.morphema.shape;

import org.jspecify.annotations.NullMarked;
