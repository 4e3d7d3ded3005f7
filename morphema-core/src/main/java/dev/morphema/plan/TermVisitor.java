package dev.morphema.plan;

/**
 * Does one thing for each kind of term.
 *
 * @param <R> what it gives
 */
public interface TermVisitor<R> {
    R constant(Term.Constant constant);

    R name(Term.Name name);

    R lazy(Term.Lazy lazy);

    R argument(Term.Argument argument);

    R global(Term.Global global);

    R param(Term.Param param);

    R rows(Term.Rows rows);

    R source(Term.Source source);

    R template(Term.Template template);

    R step(Term.Step step);

    R computed(Term.Computed computed);

    R lookup(Term.Lookup lookup);

    R call(Term.Call call);

    R aggregate(Term.Aggregate aggregate);

    R defined(Term.Defined defined);

    R inlined(Term.Inlined inlined);

    R each(Term.Each each);

    R listOf(Term.ListOf list);

    R recordOf(Term.RecordOf record);

    R member(Term.Member member);

    R choice(Term.Choice choice);

    R binary(Term.Binary binary);

    R unary(Term.Unary unary);

    R once(PlannedTerm.Once once);

    R running(PlannedTerm.Running running);

    R total(PlannedTerm.Total total);

    R scanned(PlannedTerm.Scanned scanned);

    R foundByKey(PlannedTerm.FoundByKey found);
}
