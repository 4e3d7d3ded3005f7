package dev.morphema.syntax;

import dev.morphema.value.NumberValue;
import dev.morphema.value.TextValue;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * Prints a mapping in one stable layout. What is printed parses to an equal tree; comments are not
 * kept.
 */
public final class MappingPrinter {
    private static final String STEP = "  ";
    private static final String PLAIN_NAME = "[\\p{L}_][\\p{L}\\p{Nd}_]*";

    /** Words that mean something at the start of a statement, or after an expression. */
    private static final Set<String> WORDS = Set.of(
            "for",
            "let",
            "if",
            "copy",
            "require",
            "and",
            "or",
            "not",
            "in",
            "then",
            "else",
            "where",
            "group",
            "sort",
            "distinct",
            "numbered",
            "take",
            "keyed",
            "only",
            "without",
            "as",
            "by",
            "asc",
            "desc",
            "warn",
            "into",
            "key",
            "range",
            "to",
            "many",
            "true",
            "false",
            "null",
            "absent");

    private final StringBuilder out = new StringBuilder();
    private final ExpressionPrinter expressions = new ExpressionPrinter(this);
    private int level;

    private MappingPrinter() {}

    /** {@return the text of a mapping} */
    public static String print(MappingTree tree) {
        MappingPrinter printer = new MappingPrinter();
        printer.out.append("morphema 1\n");
        for (Decl decl : tree.declarations()) {
            printer.out.append('\n');
            printer.declaration(decl);
        }
        return printer.out.toString();
    }

    private void line(String text) {
        out.append(STEP.repeat(level)).append(text).append('\n');
    }

    /** {@return a block, laid out over lines at the level at hand, from brace to brace} */
    String block(Block block) {
        if (block.statements().isEmpty()) {
            return "{ }";
        }
        MappingPrinter inner = new MappingPrinter();
        inner.level = level + 1;
        block.statements().forEach(inner::statement);
        return "{\n" + inner.out + STEP.repeat(level) + "}";
    }

    private void declaration(Decl decl) {
        if (decl instanceof Decl.Source source) {
            line("source " + source.name().text() + ": " + format(source.format()) + types(source));
        } else if (decl instanceof Decl.Target target) {
            target(target);
        } else if (decl instanceof Decl.FileTable table) {
            line("table " + table.name().text() + ": " + format(table.format()) + columns(table.columns()));
        } else if (decl instanceof Decl.LoopTable table) {
            line("table " + table.name().text() + " " + loop(table.loop()) + columns(table.columns()));
        } else if (decl instanceof Decl.InlineTable table) {
            inlineTable(table);
        } else if (decl instanceof Decl.Param param) {
            String fallback = param.fallback() == null ? "" : " = " + expressions.print(param.fallback());
            line("param " + param.name().text() + ": " + type(param.type()) + fallback);
        } else if (decl instanceof Decl.Let let) {
            line("let " + let.name().text() + " = " + expressions.print(let.value()));
        } else if (decl instanceof Decl.Define define) {
            String names = define.parameters().stream().map(Name::text).collect(Collectors.joining(", "));
            line("define " + define.name().text() + "(" + names + ") = " + expressions.print(define.value()));
        } else if (decl instanceof Decl.Use use) {
            line("use " + raw(use.file()));
        } else if (decl instanceof Decl.Prefix prefix) {
            line("prefix " + prefix.name().text() + " = " + raw(prefix.uri()));
        }
    }

    private void target(Decl.Target target) {
        String head = "target " + target.name().text() + ": " + format(target.format());
        if (target.split() != null && target.into() != null) {
            head += " " + loop(target.split()) + " into " + expressions.head(target.into());
        }
        line(head + content(target.content()));
    }

    private void inlineTable(Decl.InlineTable table) {
        line("table " + table.name().text() + " {");
        level++;
        table.entries().forEach(e -> line(raw(e.key().text()) + " = " + expressions.print(e.value())));
        level--;
        line("}");
    }

    private String types(Decl.Source source) {
        if (source.types().isEmpty()) {
            return "";
        }
        StringBuilder text = new StringBuilder(" {\n");
        for (Decl.FieldType type : source.types()) {
            String path = type.steps().stream()
                    .map(step -> (step.axis() == Expr.Axis.ATTRIBUTE ? "@" : "") + name(step.name()))
                    .collect(Collectors.joining("."));
            text.append(STEP)
                    .append(type.deep() ? ".." : "")
                    .append(path)
                    .append(": ")
                    .append(type(type.type()))
                    .append('\n');
        }
        return text.append('}').toString();
    }

    private static String format(FormatRef format) {
        if (format.options().isEmpty()) {
            return format.name();
        }
        return format.options().stream()
                .map(o -> (o.name() == null ? "" : o.name() + " = ") + constant(o.value()))
                .collect(Collectors.joining(", ", format.name() + "(", ")"));
    }

    private String columns(Decl.Columns columns) {
        StringBuilder text = new StringBuilder(" key ");
        text.append(columns.keys().stream().map(this::column).collect(Collectors.joining(", ")));
        if (columns.from() != null && columns.to() != null) {
            text.append(" range ").append(column(columns.from())).append(" to ").append(column(columns.to()));
        }
        return text.append(columns.many() ? " many" : "").toString();
    }

    /** A column may have any name, also one that must be quoted. */
    private String column(Expr column) {
        return column instanceof Expr.Reference reference ? raw(reference.name()) : expressions.head(column);
    }

    private static String type(TypeRef type) {
        return type.arguments().isEmpty()
                ? type.name()
                : type.arguments().stream()
                        .map(MappingPrinter::constant)
                        .collect(Collectors.joining(", ", type.name() + "(", ")"));
    }

    private static String constant(Constant constant) {
        return switch (constant.form()) {
            case TEXT -> raw(constant.text());
            case NUMBER, WORD -> constant.text();
            case LIST ->
                constant.items().stream().map(MappingPrinter::constant).collect(Collectors.joining(", ", "[", "]"));
        };
    }

    private void statement(Stmt statement) {
        if (statement instanceof Stmt.Field field) {
            String mark =
                    switch (field.presence()) {
                        case PLAIN -> "";
                        case REQUIRED -> "!";
                        case OPTIONAL -> "?";
                    };
            String type = field.type() == null ? "" : ": " + type(field.type());
            line((field.attribute() ? "@" : "") + name(field.name()) + mark + type + content(field.content()));
        } else if (statement instanceof Stmt.OwnText text) {
            line("= " + expressions.print(text.value()));
        } else if (statement instanceof Stmt.Item item) {
            line(content(item.content()).strip());
        } else if (statement instanceof Stmt.Let let) {
            line("let " + let.name().text() + " = " + expressions.print(let.value()));
        } else if (statement instanceof Stmt.If ifThen) {
            String otherwise = ifThen.otherwise() == null ? "" : " else " + block(ifThen.otherwise());
            line("if " + expressions.head(ifThen.condition()) + " " + block(ifThen.then()) + otherwise);
        } else if (statement instanceof Stmt.Copy copy) {
            copy(copy);
        } else if (statement instanceof Stmt.Require require) {
            line("require (" + expressions.print(require.condition()) + ") else " + (require.warn() ? "warn " : "")
                    + expressions.print(require.message()));
        }
    }

    private void copy(Stmt.Copy copy) {
        String names = copy.names().stream().map(MappingPrinter::name).collect(Collectors.joining(", "));
        String choice =
                switch (copy.choice()) {
                    case ALL -> "";
                    case ONLY -> " only " + names;
                    case WITHOUT -> " without " + names;
                };
        line("copy " + expressions.path(copy.record()) + choice);
    }

    private String content(Stmt.Content content) {
        if (content instanceof Stmt.Rule rule) {
            return " = " + expressions.print(rule.value());
        }
        if (content instanceof Stmt.Nested nested) {
            return " " + block(nested.block());
        }
        if (content instanceof Stmt.Repeated repeated) {
            String each = repeated.each() instanceof Stmt.Rule rule
                    ? " => " + expressions.print(rule.value())
                    : content(repeated.each());
            return " " + loop(repeated.loop()) + each;
        }
        Stmt.Pieces pieces = (Stmt.Pieces) content;
        String inner = block(new Block(pieces.span(), pieces.pieces()));
        return " [" + inner.substring(1, inner.length() - 1) + "]";
    }

    /** {@return a for clause in one line} */
    String loop(Loop loop) {
        ClausePrinter clauses = new ClausePrinter(expressions);
        loop.clauses().forEach(clause -> clause.accept(clauses));
        return clauses.printed();
    }

    /**
     * {@return whether a word means something at the start of a statement, or after an expression}
     */
    public static boolean isWord(String name) {
        return WORDS.contains(name);
    }

    /** {@return a name of a field, in quotes where it could be taken for something else} */
    static String name(Name name) {
        boolean plain = name.text().matches(PLAIN_NAME) && !WORDS.contains(name.text());
        return name.prefix() != null ? name.qualified() : plain ? name.text() : raw(name.text());
    }

    /**
     * {@return a text as a raw text or, where it has what that cannot hold, as a template without
     * expressions}
     */
    public static String raw(String text) {
        return text.indexOf('\n') < 0 ? "'" + text.replace("'", "''") + "'" : '"' + escaped(text) + '"';
    }

    static String escaped(String text) {
        return text.replace("\\", "\\\\")
                .replace("\"", "\\\"")
                .replace("\n", "\\n")
                .replace("\r", "\\r")
                .replace("\t", "\\t")
                .replace("{", "{{")
                .replace("}", "}}");
    }

    /** Prints the clauses of a loop. */
    private static final class ClausePrinter implements Loop.Visitor {
        private final ExpressionPrinter expressions;
        private final List<String> parts = new ArrayList<>();

        ClausePrinter(ExpressionPrinter expressions) {
            this.expressions = expressions;
        }

        String printed() {
            return String.join(" ", parts);
        }

        private String heads(List<Expr> exprs) {
            return exprs.stream().map(expressions::head).collect(Collectors.joining(", "));
        }

        @Override
        public void bind(Loop.Bind bind) {
            parts.add("for " + (bind.optional() ? "optional " : "")
                    + bind.name().text() + " in " + expressions.sequence(bind.sequence()));
        }

        @Override
        public void where(Loop.Where where) {
            parts.add("where " + expressions.head(where.condition()));
        }

        @Override
        public void let(Loop.Let let) {
            parts.add("let " + let.name().text() + " = " + expressions.head(let.value()));
        }

        @Override
        public void groupBy(Loop.GroupBy groupBy) {
            String keys = groupBy.keys().stream()
                    .map(k -> (k.name() == null ? "" : k.name().text() + " = ") + expressions.head(k.value()))
                    .collect(Collectors.joining(", "));
            parts.add("group " + (groupBy.runs() ? "runs " : "") + "by " + keys + " as "
                    + groupBy.members().text());
        }

        @Override
        public void groupFrom(Loop.GroupFrom groupFrom) {
            parts.add("group from " + expressions.head(groupFrom.condition()) + " as "
                    + groupFrom.members().text());
        }

        @Override
        public void sortBy(Loop.SortBy sortBy) {
            parts.add("sort by "
                    + sortBy.keys().stream()
                            .map(k -> expressions.head(k.value()) + (k.descending() ? " desc" : ""))
                            .collect(Collectors.joining(", ")));
        }

        @Override
        public void distinctBy(Loop.DistinctBy distinctBy) {
            parts.add("distinct by " + heads(distinctBy.keys()));
        }

        @Override
        public void numbered(Loop.Numbered numbered) {
            parts.add("numbered " + numbered.name().text()
                    + (numbered.keys().isEmpty() ? "" : " by " + heads(numbered.keys())));
        }

        @Override
        public void take(Loop.Take take) {
            parts.add("take " + expressions.head(take.count()));
        }

        @Override
        public void keyedBy(Loop.KeyedBy keyedBy) {
            parts.add("keyed by " + expressions.head(keyedBy.key()));
        }
    }

    /** {@return a literal as a mapping writes it} */
    static String literal(Expr.Literal literal) {
        if (literal.value() instanceof TextValue text) {
            return raw(text.text());
        }
        if (literal.value() instanceof NumberValue number) {
            return number.toString();
        }
        return literal.value().toString().toLowerCase(Locale.ROOT);
    }
}
