/**
 * The outputs of a run: staged while it goes on, and put into their places together, whole or not
 * at all.
 */
@NullMarked
package dev.morphema.output;

import org.jspecify.annotations.NullMarked;
