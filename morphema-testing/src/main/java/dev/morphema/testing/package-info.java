/**
 * Properties: tests that hold for many values made at random. A test method is a {@link
 * dev.morphema.testing.Property}, its parameters are made by a {@link dev.morphema.testing.Gen}.
 * The values are the same in each run; another seed is given by {@code -Dproperties.seed=…}, or a
 * new one each time by {@code random}.
 */
package dev.morphema.testing;
