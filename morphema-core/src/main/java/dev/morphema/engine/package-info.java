/**
 * Runs checked mappings. {@link dev.morphema.engine.Compiler} turns a checked mapping into a {@link
 * dev.morphema.engine.Program}: small nodes with resolved slots, immutable and shared by all runs.
 * A {@link dev.morphema.engine.Run} holds the state of one run and drives it: sources push their
 * records through the loops of the targets, which send events to the writers.
 */
@NullMarked
package dev.morphema.engine;

import org.jspecify.annotations.NullMarked;
