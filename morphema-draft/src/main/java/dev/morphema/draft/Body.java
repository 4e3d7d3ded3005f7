package dev.morphema.draft;

import java.util.List;

/**
 * The statements of a block, with how many of its fields have a rule that gives what is wanted.
 *
 * @param nodes the statements
 * @param right how many values of a field, once for each field, are right
 * @param total how many fields there are
 * @param cost how far-fetched the rules are, together
 */
record Body(List<Node> nodes, int right, int total, double cost) {
    /** {@return how many of the rules tell more than one value that was seen once} */
    int made() {
        return nodes.stream().mapToInt(Body::made).sum();
    }

    private static int made(Node node) {
        if (node instanceof FieldRule rule) {
            boolean constant = rule.expression().matches("\"[^{]*\"|[-0-9.]+|true|false|null");
            return constant && rule.remark().equals(Remarks.ONCE)
                            || rule.expression().startsWith("todo(")
                    ? 0
                    : 1;
        }
        if (node instanceof FieldRecord record) {
            return record.body().made();
        }
        if (node instanceof FieldLoop loop) {
            return loop.body().made();
        }
        return node instanceof Conditional conditional
                ? conditional.nodes().stream().mapToInt(Body::made).sum()
                : 0;
    }

    /** A statement. */
    sealed interface Node {}

    /**
     * A field with a rule.
     *
     * @param name with an at sign for an attribute; empty for the own text, or the value of an item
     * @param type a type that it is given; empty for none
     * @param optional whether a blank value leaves it out
     * @param expression the rule
     * @param remark what is said of it in a comment; empty for nothing
     */
    record FieldRule(String name, String type, boolean optional, String expression, String remark) implements Node {}

    /** A field that is a record. */
    record FieldRecord(String name, boolean optional, Body body) implements Node {}

    /**
     * A field that repeats, or items without name.
     *
     * @param name empty for items
     * @param clause the loop
     * @param body what each turn writes: fields, or one rule without name
     */
    record FieldLoop(String name, String clause, Body body) implements Node {
        /**
         * {@return a loop of which it is not known what it goes through, but what it is to write}
         */
        static Body unknown(String name, String row, Body body) {
            String clause = "for " + row + " in todo(\"what repeats here\")";
            return new Body(List.of(new FieldLoop(name, clause, body)), 0, Math.max(1, body.total()), 0);
        }
    }

    /** A name for the rest of the block. */
    record Let(String name, String expression) implements Node {}

    /** Statements under a condition. */
    record Conditional(String condition, List<Node> nodes) implements Node {}
}
