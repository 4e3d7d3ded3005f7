/**
 * What can be wrong, as values: a {@link dev.morphema.problem.Problem} says what, where in the
 * mapping, where in the input and what to do about it. Everything else in Morphema reports through
 * this package; it depends on nothing.
 */
@NullMarked
package dev.morphema.problem;

import org.jspecify.annotations.NullMarked;
