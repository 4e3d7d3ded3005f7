package dev.morphema.engine;

import dev.morphema.syntax.Span;
import dev.morphema.value.Value;

/** The value of a field, for a rule further down that asks for it by {@code .name}. */
final class KeptNode extends Node {
    private final Content.Rule rule;

    KeptNode(Span span, Content.Rule rule) {
        super(span);
        this.rule = rule;
    }

    @Override
    Value compute(Frame frame) {
        return rule.value(frame);
    }
}
