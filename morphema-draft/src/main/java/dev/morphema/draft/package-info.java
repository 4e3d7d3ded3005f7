/**
 * Drafts: a first mapping between two systems, found out from samples or schemas of both. Begin
 * with {@link dev.morphema.draft.Drafting}.
 */
@NullMarked
package dev.morphema.draft;

import org.jspecify.annotations.NullMarked;
