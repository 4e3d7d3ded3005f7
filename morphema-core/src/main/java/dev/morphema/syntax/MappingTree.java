package dev.morphema.syntax;

import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * A whole mapping as a tree.
 *
 * @param source its text
 * @param declarations in written order
 * @param steps the names of all fields that some path steps to
 */
public record MappingTree(SourceText source, List<Decl> declarations, Set<String> steps) {
    public MappingTree {
        declarations = List.copyOf(declarations);
        steps = Set.copyOf(steps);
    }

    /**
     * {@return the innermost expression that holds the character at an offset, or ends before it;
     * empty if none does}
     */
    public Optional<Expr> nodeAt(int offset) {
        return NodeFinder.find(this, offset);
    }

    /** Two trees are equal if their declarations are, wherever they came from. */
    @Override
    public boolean equals(Object other) {
        return other instanceof MappingTree t && t.declarations.equals(declarations);
    }

    @Override
    public int hashCode() {
        return declarations.hashCode();
    }
}
