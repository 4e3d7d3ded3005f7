/**
 * The command line: {@link dev.morphema.cli.Main} with one class for each command. Nothing here
 * that a library user would miss.
 */
@NullMarked
package dev.morphema.cli;

import org.jspecify.annotations.NullMarked;
