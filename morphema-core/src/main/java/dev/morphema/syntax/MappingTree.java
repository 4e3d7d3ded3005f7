package dev.morphema.syntax;

import java.util.List;

/**
 * A whole mapping as a tree.
 *
 * @param source its text
 * @param declarations in written order
 */
public record MappingTree(SourceText source, List<Decl> declarations) {
    public MappingTree {
        declarations = List.copyOf(declarations);
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
