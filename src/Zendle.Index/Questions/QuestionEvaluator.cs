using System.Collections.Immutable;
using Lucene.Net.Index;
using Zendle.Core.People;
using Zendle.Core.Queries;
using Zendle.Core.Reviews;
using Zendle.Core.Sets;
using Zendle.Core.Text;
using Zendle.Index.Columns;
using Zendle.Index.Text;

namespace Zendle.Index.Questions;

/// <summary>
/// Answers questions exactly, as sets. A tree is worked out on records (a work matches when one of its records does),
/// leaf sets are remembered by the snapshot, and everything above them is algebra on bits.
/// </summary>
/// <param name="snapshot">The corpus at one moment.</param>
/// <param name="facts">What the review says, for stage: and tag:; null outside a review.</param>
public sealed class QuestionEvaluator(CorpusSnapshot snapshot, ReviewFacts? facts)
{
    private readonly CorpusColumns columns = snapshot.Columns;
    private readonly Budget budget = Budget.Current;
    private readonly Dictionary<(NearNode, QueryField), NearSides[]> sides = [];

    /// <summary>The records that satisfy a tree.</summary>
    /// <param name="root">The tree.</param>
    /// <param name="field">Field of words that name none.</param>
    /// <param name="without">A node that is taken to match nothing; for what only it brings in.</param>
    /// <returns>A set that must not be changed.</returns>
    public RecordSet Records(QueryNode root, QueryField field = QueryField.About, QueryNode? without = null)
    {
        if (without is null && root is AndNode or OrNode)
            ReadTerms(root, field);
        return Found(root, field, without);
    }

    /// <summary>
    /// Reads what the terms of a tree find, several at once: reading postings takes most of the time of a question that
    /// was not asked before, and no term knows of another.
    /// </summary>
    private void ReadTerms(QueryNode root, QueryField field)
    {
        var terms = Leaves(root, field)
            .Where(t =>
                t.Field
                    is not (
                        QueryField.Stage
                        or QueryField.Tag
                        or QueryField.Database
                        or QueryField.Person
                        or QueryField.Text
                    )
                && !snapshot.Remembers(Key(t.Term, t.Field))
            )
            .ToArray();
        if (terms.Length > 1)
            snapshot.Read(terms, t => Term(t.Term, t.Field));
    }

    private static IEnumerable<(TermNode Term, QueryField Field)> Leaves(QueryNode node, QueryField field) =>
        node switch
        {
            TermNode t => [(t, field)],
            AndNode a => a.Parts.SelectMany(p => Leaves(p, field)),
            OrNode o => o.Parts.SelectMany(p => Leaves(p, field)),
            NotNode n => Leaves(n.Part, field),
            FieldNode f => Leaves(f.Part, f.Field),
            _ => [],
        };

    private RecordSet Found(QueryNode root, QueryField field, QueryNode? without)
    {
        budget.Check();
        if (ReferenceEquals(root, without))
            return new RecordSet(columns.RecordSize);
        switch (root)
        {
            case AllNode:
                return snapshot.Live;
            case TermNode term:
                return Term(term, field);
            case FieldNode f:
                return Found(f.Part, f.Field, without);
            case YearsNode years:
                return Years(years);
            case NotNode not:
                var rest = snapshot.Live.Copy();
                rest.ExceptWith(Found(not.Part, field, without));
                return rest;
            case AndNode and:
                var sets = and.Parts.Select(p => Found(p, field, without)).ToArray();
                return sets[0].CommonWith(sets[1..]);
            case OrNode many when (without is null || !Holds(many, without)) && !AsksReview(many, field):
                // On a board all cards but one stay as they are: what a card finds is remembered like what a term
                // finds.
                return snapshot.Remember(new TreeKey(field, QueryText.Print(many)), () => Any(many, field, null));
            case OrNode many:
                return Any(many, field, without);
            case NearNode near:
                return Near(near, field, without);
            default:
                throw new ArgumentOutOfRangeException(nameof(root));
        }
    }

    private RecordSet Any(OrNode or, QueryField field, QueryNode? without)
    {
        var any = Found(or.Parts[0], field, without).Copy();
        foreach (var part in or.Parts.Skip(1))
            any.UnionWith(Found(part, field, without));
        return any;
    }

    /// <summary>Whether what a tree finds depends on the review that asks, and so is not remembered for all.</summary>
    private bool AsksReview(QueryNode tree, QueryField field) =>
        AsksReview(field) || Leaves(tree, field).Any(l => AsksReview(l.Field));

    private bool AsksReview(QueryField field) => field is QueryField.Stage or QueryField.Tag || AsksTexts(field);

    /// <summary>Whether a field is looked for in gathered texts, too.</summary>
    private bool AsksTexts(QueryField field) =>
        field == QueryField.Text || (field == QueryField.Anywhere && facts?.Texts is not null);

    /// <summary>The records of works whose gathered text holds a term, or terms near each other.</summary>
    private RecordSet InTexts(QueryNode node) =>
        facts?.Texts is { } texts
            ? RecordsOf(texts.Holding(node, columns.WorkSize))
            : new RecordSet(columns.RecordSize);

    /// <summary>Whether a node stands in a tree.</summary>
    private static bool Holds(QueryNode tree, QueryNode node) =>
        ReferenceEquals(tree, node)
        || tree switch
        {
            AndNode a => a.Parts.Any(p => Holds(p, node)),
            OrNode o => o.Parts.Any(p => Holds(p, node)),
            NearNode n => n.Parts.Any(p => Holds(p, node)),
            NotNode n => Holds(n.Part, node),
            FieldNode f => Holds(f.Part, node),
            _ => false,
        };

    /// <summary>
    /// The works of the chosen databases that an expression finds, as a set of one's own; none for one that cannot be read.
    /// </summary>
    /// <param name="expression">What is looked for.</param>
    /// <param name="databases">Ids of the databases chosen; empty for all.</param>
    /// <param name="field">Where words without a field are looked for.</param>
    public WorkSet Works(
        string expression,
        ImmutableArray<int> databases = default,
        QueryField field = QueryField.About
    ) => QueryReader.Read(expression).Root is { } root ? Works(Records(root, field), databases) : Nothing();

    /// <summary>The works of <paramref name="records"/> that lie in the chosen databases. O(records).</summary>
    /// <param name="records">Records.</param>
    /// <param name="databases">Ids of the databases chosen; empty for all.</param>
    public WorkSet Works(RecordSet records, ImmutableArray<int> databases = default)
    {
        var works = new WorkSet(columns.WorkSize);
        if (databases.IsDefaultOrEmpty)
        {
            foreach (var r in records)
                works.Add(columns.RecordWork[r]);
            return works;
        }
        var chosen = new bool[256];
        foreach (var d in databases)
            if ((uint)d < (uint)chosen.Length)
                chosen[d] = true;
        foreach (var r in records)
            if (chosen[columns.RecordDatabase[r]])
                works.Add(columns.RecordWork[r]);
        return works;
    }

    /// <summary>The words that a pattern stands for, those in most records first.</summary>
    /// <param name="slot">A folded pattern.</param>
    /// <param name="field">Where it is looked for.</param>
    /// <returns>Each word once, with how many postings it has over the fields: an order, not a count to be
    /// shown.</returns>
    public IReadOnlyList<(string Word, int Postings)> WordsOf(string slot, QueryField field)
    {
        var found = new Dictionary<string, int>(StringComparer.Ordinal);
        foreach (var leaf in snapshot.Reader.Leaves)
        foreach (var name in IndexFields.Text(field))
        foreach (var term in TermWalk.Over(leaf.AtomicReader, name, slot, budget))
        {
            var word = term.Term.Utf8ToString();
            found[word] = found.GetValueOrDefault(word) + term.DocFreq;
        }
        return
        [
            .. found
                .Select(f => (f.Key, f.Value))
                .OrderByDescending(f => f.Value)
                .ThenBy(f => f.Key, StringComparer.Ordinal),
        ];
    }

    /// <summary>
    /// How a word is written that stands nowhere by itself, but only for hyphenated words: "light-trap" for "lighttrap".
    /// Null for a word that some record has as it is.
    /// </summary>
    /// <param name="word">A folded word.</param>
    /// <param name="field">Where it is looked for; a field that is searched by default.</param>
    public string? OnlyHyphenated(string word, QueryField field)
    {
        string? written = null;
        var hyphenated = new RecordSet(columns.RecordSize);
        foreach (var leaf in snapshot.Reader.Leaves)
        foreach (var term in TermWalk.Over(leaf.AtomicReader, IndexFields.Hyphenated, word + "|*", budget))
        {
            var form = term.Term.Utf8ToString();
            written ??= form[(form.IndexOf('|', StringComparison.Ordinal) + 1)..];
            hyphenated.UnionWith(Word(IndexFields.Hyphenated, form));
        }
        if (written is null)
            return null;
        foreach (var name in IndexFields.Text(field))
        {
            var having = Word(name, word).Copy();
            having.ExceptWith(hyphenated);
            if (!having.IsEmpty)
                return null;
        }
        return written;
    }

    /// <summary>Takes out of a set what is in no database any more; a review that kept it has it still.</summary>
    public void LeaveOutWithdrawn(WorkSet works)
    {
        if (columns.Withdrawn.IsEmpty)
            return;
        var elsewhere = columns.Withdrawn.Copy();
        if (facts is not null)
            elsewhere.ExceptWith(facts.Kept);
        works.ExceptWith(elsewhere);
    }

    /// <summary>No works, as a set of one's own.</summary>
    public WorkSet Nothing() => new(columns.WorkSize);

    /// <summary>All works, as a set of one's own.</summary>
    public WorkSet Everything() => snapshot.Remember(new AllWorksKey(), () => Works(snapshot.Live)).Copy();

    /// <summary>All narrowings of a state, as a set of works; null when nothing narrows.</summary>
    /// <param name="state">The state.</param>
    /// <param name="lifted">A field whose own narrowing is left out, for its counts.</param>
    /// <param name="read">Reads an expression for <see cref="SearchState.Inside"/>; unreadable ones find
    /// nothing.</param>
    public WorkSet? Narrowed(SearchState state, Facet? lifted, Func<string, QueryNode?> read)
    {
        WorkSet? set = null;
        void And(WorkSet other)
        {
            if (set is null)
                set = other.Copy();
            else
                set.IntersectWith(other);
        }
        if ((state.From is not null || state.To is not null) && lifted != Facet.Year)
            And(snapshot.Remember(new ShownYearsKey(state.From, state.To), () => WorksOf(state.From, state.To)));
        foreach (var narrowing in state.Narrowings)
        {
            if (narrowing.Facet == lifted)
                continue;
            if (!narrowing.Values.IsEmpty)
                And(With(narrowing.Facet, narrowing.Values));
            foreach (var value in narrowing.Each)
                And(With(narrowing.Facet, [value]));
            if (narrowing.Excluded.IsEmpty)
                continue;
            var others = Everything();
            others.ExceptWith(With(narrowing.Facet, narrowing.Excluded));
            And(others);
        }
        foreach (var words in state.Inside)
            And(
                read(words) is { } node
                    ? Works(Records(node), state.Trail is null ? state.Databases : default)
                    : new WorkSet(columns.WorkSize)
            );
        return set;
    }

    /// <summary>
    /// The works that show a year of a span: a narrowing asks the year that a work shows, as every bar and row does;
    /// <c>year:</c> in an expression asks records.
    /// </summary>
    private WorkSet WorksOf(int? from, int? to)
    {
        var works = new WorkSet(columns.WorkSize);
        for (var work = 1; work < columns.WorkSize; work++)
            if (
                columns.WorkFirstRecord[work] > 0
                && columns.Year[work] > 0
                && columns.Year[work] >= (from ?? 1)
                && columns.Year[work] <= (to ?? short.MaxValue)
            )
                works.Add(work);
        return works;
    }

    /// <summary>The works that have one of the values of a field.</summary>
    public WorkSet With(Facet facet, IEnumerable<string> values)
    {
        if (facet == Facet.Library)
        {
            var held = new WorkSet(columns.WorkSize);
            foreach (var library in values)
                held.UnionWith(snapshot.HeldBy(library));
            return held;
        }
        if (facet is not (Facet.Stage or Facet.Tag))
            return snapshot.Remember(
                new FacetKey(facet, new([.. values])),
                () => columns.Of(facet).With(values.Select(v => columns.Today(facet, v)), columns.WorkSize)
            );
        var set = new WorkSet(columns.WorkSize);
        foreach (var value in values)
            set.UnionWith(facet == Facet.Stage ? StageSet(value) : TagSet(value));
        return set;
    }

    private RecordSet Term(TermNode term, QueryField field)
    {
        if (field == QueryField.Text)
            return InTexts(term);
        if (!AsksTexts(field))
            return OfRecords(term, field);
        var either = OfRecords(term, field).Copy();
        either.UnionWith(InTexts(term));
        return either;
    }

    private RecordSet OfRecords(TermNode term, QueryField field)
    {
        switch (field)
        {
            case QueryField.Stage:
                return RecordsOf(StageSet(term.Written));
            case QueryField.Tag:
                return RecordsOf(TagSet(term.Written));
            case QueryField.Database:
                return Database(term);
            case QueryField.Person:
                return RecordsOf(With(Facet.Person, [term.Written.Trim()]));
        }
        if (IndexFields.Value(field) is { } value)
            return snapshot.Remember(Key(term, field), () => Exact(value, field, term.Written));
        if (field == QueryField.Author && NameQuery.Of(term.Written) is { } name)
            return snapshot.Remember(
                Key(term, field),
                () =>
                {
                    var records = In(IndexFields.Text(field), term);
                    foreach (var form in FormsOf(name))
                        records.UnionWith(Word(IndexFields.Name, form));
                    return records;
                }
            );
        return snapshot.Remember(Key(term, field), () => In(IndexFields.Text(field), term));
    }

    /// <summary>The forms of names in the corpus that can be a name as it was typed. O(names under its family name).</summary>
    private HashSet<string> FormsOf(NameQuery name)
    {
        var forms = new HashSet<string>(StringComparer.Ordinal);
        foreach (var leaf in snapshot.Reader.Leaves)
        foreach (var pattern in name.Patterns)
        foreach (var term in TermWalk.Over(leaf.AtomicReader, IndexFields.Name, pattern, budget))
            if (term.Term.Utf8ToString() is var form && name.Finds(form))
                forms.Add(form);
        return forms;
    }

    /// <summary>The records that have a term among their authors' keywords, or among their controlled terms.</summary>
    public RecordSet InKeywords(TermNode term, bool isControlled)
    {
        var name = isControlled ? IndexFields.Controlled : IndexFields.Keywords;
        return snapshot.Remember(new KeywordsKey(isControlled, Texts.Of(term)), () => In([name], term));
    }

    private RecordSet In(string[] names, TermNode term)
    {
        var records = new RecordSet(columns.RecordSize);
        foreach (var name in names)
        foreach (var form in term.Forms)
            if (form.Length == 1)
                records.UnionWith(Word(name, form[0]));
            else
                Occurrences(name, reader => reader.Of(form), records);
        return records;
    }

    /// <summary>Under what the records of a term are remembered.</summary>
    private static SetKey<RecordSet> Key(TermNode term, QueryField field) =>
        IndexFields.Value(field) is not null || (field == QueryField.Author && NameQuery.Of(term.Written) is not null)
            ? new WrittenKey(field, term.Written)
            : new TermKey(field, Texts.Of(term));

    private RecordSet Word(string name, string slot) =>
        snapshot.Remember(
            new PostingsKey(name, slot),
            () =>
            {
                var records = new RecordSet(columns.RecordSize);
                foreach (var leaf in snapshot.Reader.Leaves)
                {
                    var reader = leaf.AtomicReader;
                    var ids = SegmentDocs.Of(reader).Record;
                    DocsEnum? docs = null;
                    var looked = 0;
                    foreach (var term in TermWalk.Over(reader, name, slot, budget))
                    {
                        docs = term.Docs(reader.LiveDocs, docs, DocsFlags.NONE);
                        for (
                            var d = docs.NextDoc();
                            d != Lucene.Net.Search.DocIdSetIterator.NO_MORE_DOCS;
                            d = docs.NextDoc()
                        )
                        {
                            budget.Every(ref looked);
                            Put(records, ids[d]);
                        }
                    }
                }
                return records;
            }
        );

    private RecordSet Near(NearNode near, QueryField field, QueryNode? without)
    {
        // Of terms near each other one alone brings what holds all of them.
        var isLacking = without is not null && near.Parts.Any(p => ReferenceEquals(p, without));
        if (field == QueryField.Text)
            return isLacking ? new RecordSet(columns.RecordSize) : InTexts(near);
        if (!AsksTexts(field))
            return InRecords(near, field, without);
        var either = InRecords(near, field, without).Copy();
        if (!isLacking)
            either.UnionWith(InTexts(near));
        return either;
    }

    private RecordSet InRecords(NearNode near, QueryField field, QueryNode? without)
    {
        if (without is not null && near.Parts.Any(p => Holds(p, without)))
            return NearUncached(near, field, without);
        return snapshot.Remember(new TreeKey(field, QueryText.Print(near)), () => NearUncached(near, field, null));
    }

    private RecordSet NearUncached(NearNode near, QueryField field, QueryNode? without)
    {
        // The places of all terms are read once, however many terms are then left out one after another.
        if (!sides.TryGetValue((near, field), out var read))
            sides[(near, field)] = read = [
                .. IndexFields.Text(field).SelectMany(name => NearSides.Of(near, snapshot, name, budget)),
            ];
        var records = new RecordSet(columns.RecordSize);
        foreach (var segment in read)
        foreach (var document in segment.Documents(without, budget))
            Put(records, segment.Records[document]);
        return records;
    }

    private void Occurrences(string name, Func<SpanReader, Spans> find, RecordSet records)
    {
        // Segments know nothing of each other.
        var leaves = snapshot.Reader.Leaves;
        var found = new long[leaves.Count][];
        snapshot.Read(
            [.. Enumerable.Range(0, leaves.Count)],
            i => found[i] = find(new(leaves[i].AtomicReader, name, budget)).Starts
        );
        for (var i = 0; i < found.Length; i++)
        {
            var ids = SegmentDocs.Of(leaves[i].AtomicReader).Record;
            foreach (var start in found[i])
                Put(records, ids[Spans.Document(start)]);
        }
    }

    private void Put(RecordSet records, int id)
    {
        // Records put in after the columns were built are not part of this snapshot.
        if (id < columns.RecordSize && columns.RecordWork[id] > 0)
            records.Add(id);
    }

    private RecordSet Exact(string name, QueryField field, string written)
    {
        var value = field switch
        {
            QueryField.Doi => Core.Records.Identifiers.Doi(written) ?? written.ToLowerInvariant(),
            QueryField.Issn => Core.Records.Identifiers.Issn(written) ?? written,
            QueryField.Isbn => Core.Records.Identifiers.Isbn(written) ?? written,
            QueryField.Url => Core.Records.WebAddress.Key(written) ?? written,
            _ => written.ToLowerInvariant(),
        };
        return Word(name, value);
    }

    private RecordSet Years(YearsNode years)
    {
        var (from, to) = (years.From ?? 1, years.To ?? short.MaxValue);
        return snapshot.Remember(
            new PrintedYearsKey(from, to),
            () =>
            {
                var records = new RecordSet(columns.RecordSize);
                for (var r = 0; r < columns.RecordSize; r++)
                    if (
                        columns.RecordWork[r] > 0
                        && columns.RecordDatabase[r] != CorpusColumns.NoDatabase
                        && columns.RecordYear[r] >= from
                        && columns.RecordYear[r] <= to
                    )
                        records.Add(r);
                return records;
            }
        );
    }

    private RecordSet Database(TermNode term)
    {
        var ids = snapshot
            .DatabaseNames.Where(d =>
                Words.Of(d.Value).Any(w => term.Slots.Any(s => Glob.Matches(s, w.Text)))
                && term.Slots.All(s => Words.Of(d.Value).Any(w => Glob.Matches(s, w.Text)))
            )
            .Select(d => d.Key)
            .ToHashSet();
        var records = new RecordSet(columns.RecordSize);
        for (var r = 0; r < columns.RecordSize; r++)
            if (columns.RecordWork[r] > 0 && ids.Contains(columns.RecordDatabase[r]))
                records.Add(r);
        return records;
    }

    /// <summary>The records of some works.</summary>
    public RecordSet RecordsOf(WorkSet works)
    {
        var records = new RecordSet(columns.RecordSize);
        for (var r = 0; r < columns.RecordSize; r++)
            if (columns.RecordWork[r] is > 0 and var w && works.Contains(w))
                records.Add(r);
        return records;
    }

    private WorkSet StageSet(string written)
    {
        if (facts is null)
            return new WorkSet(columns.WorkSize);
        switch (Words.Fold(written.Trim()))
        {
            case "kept":
                return facts.Kept;
            case "set aside" or "aside":
                return facts.SetAside;
            case "found":
                var rest = Everything();
                rest.ExceptWith(facts.Kept);
                rest.ExceptWith(facts.SetAside);
                return rest;
            default:
                return new WorkSet(columns.WorkSize);
        }
    }

    private WorkSet TagSet(string written)
    {
        var set = new WorkSet(columns.WorkSize);
        if (facts is null)
            return set;
        var pattern = Words.Fold(written.Trim());
        foreach (var (tag, works) in facts.Tags)
            if (Glob.Matches(pattern, Words.Fold(tag)))
                set.UnionWith(works);
        return set;
    }
}
