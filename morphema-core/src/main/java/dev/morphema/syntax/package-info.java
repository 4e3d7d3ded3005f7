/**
 * From the text of a mapping to its tree: {@link dev.morphema.syntax.Parser} takes a {@link
 * dev.morphema.syntax.SourceText} and gives a {@link dev.morphema.syntax.MappingTree} with the
 * problems it met. It goes on after a problem, so that one look shows several. What the names mean
 * is not its matter.
 */
@NullMarked
package dev.morphema.syntax;

import org.jspecify.annotations.NullMarked;
