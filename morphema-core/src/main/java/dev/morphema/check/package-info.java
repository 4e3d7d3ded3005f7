/**
 * From the tree of a mapping to what its names mean: {@link dev.morphema.check.Checker} takes a
 * tree, the formats, the functions and the samples, and gives a {@link
 * dev.morphema.check.CheckedMapping} with problems as values. What it finds out about each node of
 * the tree stands in {@link dev.morphema.check.Resolution}; the tree itself stays as it is.
 */
@NullMarked
package dev.morphema.check;

import org.jspecify.annotations.NullMarked;
