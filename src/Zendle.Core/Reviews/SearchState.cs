using System.Collections.Immutable;
using Zendle.Core.Queries;
using Zendle.Core.Records;
using Zendle.Core.Reviews.Acts;
using Zendle.Core.Sets;
using Zendle.Core.Trails;

namespace Zendle.Core.Reviews;

/// <summary>The question in view: what the acts on the way from the first step to this one add up to.</summary>
/// <param name="Question">What the set is, before anything narrows it.</param>
/// <param name="Databases">Ids of the databases searched; empty for all.</param>
/// <param name="From">First year, or null.</param>
/// <param name="To">Last year, or null.</param>
/// <param name="Narrowings">One for each narrowed field, in the order they were set.</param>
/// <param name="Inside">Expressions that must hold inside the set.</param>
/// <param name="Others">Other searches it is held against; null for none.</param>
/// <param name="Among">Ids of the works that are left at most; null for all.</param>
public sealed record SearchState(
    SetQuestion Question,
    ImmutableArray<int> Databases,
    int? From,
    int? To,
    ImmutableArray<Narrowing> Narrowings,
    ImmutableArray<string> Inside,
    IReadOnlyList<OtherSearch>? Others = null,
    IReadOnlyList<int>? Among = null
)
{
    /// <summary>
    /// Words that must stand near the place where the text of a work cites a seed of the trail; empty for none.
    /// </summary>
    public string WhereItCites { get; init; } = "";

    /// <summary>Whether the answer depends on the texts that the review has gathered.</summary>
    public bool AsksTexts =>
        (Trail is not null && WhereItCites.Length > 0)
        || NamesTexts(Expression)
        || Inside.Any(NamesTexts)
        || Others?.Any(o => o.State().AsksTexts) == true;

    private static bool NamesTexts(string expression) =>
        expression.Contains("text:", StringComparison.OrdinalIgnoreCase)
        || expression.Contains("anywhere:", StringComparison.OrdinalIgnoreCase);

    /// <summary>Every work of every database.</summary>
    public static SearchState Everything { get; } = new(new WordsQuestion(""), [], null, null, [], []);

    /// <summary>The expression; empty for every work, and where something else than words is asked.</summary>
    public string Expression => (Question as WordsQuestion)?.Expression ?? "";

    /// <summary>The trail that is followed; null where none is.</summary>
    public TrailQuestion? Trail => Question as TrailQuestion;

    /// <summary>The neighbours that are asked for; null where none are.</summary>
    public NeighbourQuestion? Neighbours => Question as NeighbourQuestion;

    /// <summary>The round whose candidates are asked for; null where none is.</summary>
    public RoundQuestion? Round => Question as RoundQuestion;

    /// <summary>The name whose citing works are asked for; null where none is.</summary>
    public CitersQuestion? Citers => Question as CitersQuestion;

    /// <summary>Whether it starts from works, and so stands among the trails.</summary>
    public bool HasSeeds => Question is SeededQuestion;

    /// <summary>The state after <paramref name="act"/>.</summary>
    public SearchState After(StepAct act) => act.After(this);

    /// <summary>
    /// The fewest acts that lead to this state from everything: <see cref="Of"/> of them is the state again.
    /// </summary>
    public IEnumerable<StepAct> Acts()
    {
        foreach (var act in Asking())
            yield return act;
        if (!Databases.IsEmpty)
            yield return new DatabasesAct(Databases);
        if (From is not null || To is not null)
            yield return new YearsAct(From, To);
        foreach (var n in Narrowings)
            yield return new NarrowAct(n.Facet, n.Values, n.Excluded, n.Each);
        if (!Inside.IsEmpty)
            yield return new InsideAct(Inside);
        if (WhereItCites.Length > 0)
            yield return new WhereItCitesAct(WhereItCites);
        foreach (var other in Others ?? [])
            yield return new CompareAct(other.Acts, other.Apart, other.Said);
        if (Among is { } among)
            yield return new AmongAct(among);
    }

    /// <summary>The fewest acts that lead to the question.</summary>
    private IEnumerable<StepAct> Asking() =>
        Question switch
        {
            TrailQuestion { AtLeast: > 1 } t => [new TrailAct([.. t.Seeds], t.Way), new TiesAct(t.AtLeast)],
            TrailQuestion t => [new TrailAct([.. t.Seeds], t.Way)],
            NeighbourQuestion { AtLeast: > 1 } n =>
            [
                new NeighboursAct([.. n.Seeds], n.Kinds),
                new SharedAct(n.AtLeast),
            ],
            NeighbourQuestion n => [new NeighboursAct([.. n.Seeds], n.Kinds)],
            CitersQuestion { Self: not SelfCitations.With } c =>
            [
                new CitersAct(c.Name, c.Persons, c.Printed),
                new SelfAct(c.Self),
            ],
            CitersQuestion c => [new CitersAct(c.Name, c.Persons, c.Printed)],
            RoundQuestion r => [new RoundAct([.. r.Seeds], r.Kinds, r.AtLeast, r.Known, r.Number)],
            _ => [new SearchAct(Expression)],
        };

    /// <summary>
    /// The act that leads from this state to <paramref name="expression"/>: a further part where the new expression
    /// only goes on from the old one, so that a step in the middle can be taken out; else a new question.
    /// </summary>
    public StepAct Toward(string expression)
    {
        var line = expression.Trim();
        // What names its field already stays as it was written.
        if (TypedIdentifier.Of(line) is { } identifier && QueryReader.Read(line).Root is not FieldNode)
            return new SearchAct(identifier.Expression);
        if (
            Expression.Length == 0
            || line.Length <= Expression.Length + 1
            || !line.StartsWith(Expression + " ", StringComparison.Ordinal)
        )
            return new SearchAct(line);
        var rest = line[Expression.Length..].TrimStart();
        if (rest.StartsWith("AND ", StringComparison.Ordinal))
            rest = rest[4..].TrimStart();
        // Only where AND binds the new part to the whole of the old one, and nothing else.
        var sound =
            QueryReader.Read(Expression) is { IsSound: true, Root: not OrNode }
            && QueryReader.Read(rest) is { IsSound: true, Root: not OrNode }
            && !StartsWithOperator(rest);
        return sound ? new AddAct(rest) : new SearchAct(line);
    }

    private static bool StartsWithOperator(string rest) =>
        rest.Split(' ', 2)[0].ToUpperInvariant() is "OR" or "AND" or "|" or "||" or "&" or "&&"
        || rest.StartsWith("NEAR", StringComparison.OrdinalIgnoreCase);

    /// <summary>Two expressions joined by AND, whole against whole.</summary>
    internal static string Joined(string before, string part)
    {
        if (before.Length == 0)
            return part;
        if (part.Length == 0)
            return before;
        return $"{Wrapped(before)} AND {Wrapped(part)}";

        static string Wrapped(string text) =>
            QueryReader.Read(text).Root is OrNode && !IsInParentheses(text) ? $"({text})" : text;
    }

    private static bool IsInParentheses(string text)
    {
        var depth = 0;
        for (var i = 0; i < text.Length; i++)
        {
            depth +=
                text[i] == '(' ? 1
                : text[i] == ')' ? -1
                : 0;
            if (depth == 0)
                return i > 0 && i == text.Length - 1;
        }
        return false;
    }

    /// <summary>Folds the acts of a path.</summary>
    public static SearchState Of(IEnumerable<StepAct> acts) =>
        acts.Aggregate(Everything, (state, act) => state.After(act));

    /// <summary>
    /// The works that it names one by one: seeds, written lists, and those of the searches it is held against.
    /// </summary>
    public IEnumerable<int> Works() =>
        Question
            .Works()
            .Concat(Among ?? [])
            .Concat((Others ?? []).SelectMany(o => o.Acts).SelectMany(a => a.NamedWorks()));

    /// <summary>The same question about the works that its numbers stand for today.</summary>
    /// <param name="today">The number of today for a number.</param>
    public SearchState Today(Func<int, int> today) =>
        this with
        {
            Question = Question.Today(today),
            Among = Among is null ? null : [.. Among.Select(today).Distinct()],
            Others = Others is null
                ? null
                : [.. Others.Select(o => o with { Acts = [.. o.Acts.Select(a => a.Today(today))] })],
        };

    /// <summary>Whether the answer depends on the review's own decisions, and so changes with them.</summary>
    public bool AsksReview =>
        Narrowings.Any(n => n.Facet is Facet.Stage or Facet.Tag)
        || Names(Expression)
        || Inside.Any(Names)
        || Others?.Any(o => o.State().AsksReview) == true;

    /// <summary>Whether the answer depends on what libraries hold, and so changes with that.</summary>
    public bool AsksLibraries =>
        Narrowings.Any(n => n.Facet == Facet.Library) || Others?.Any(o => o.State().AsksLibraries) == true;

    /// <summary>Whether the answer depends on more than the corpus, and so may change while that does not.</summary>
    public bool AsksMoreThanCorpus => AsksReview || AsksLibraries || AsksTexts;

    private static bool Names(string expression) =>
        expression.Contains("stage:", StringComparison.OrdinalIgnoreCase)
        || expression.Contains("tag:", StringComparison.OrdinalIgnoreCase);

    /// <summary>Whether anything beside the expression and the databases holds works back.</summary>
    public bool IsNarrowed =>
        From is not null
        || To is not null
        || !Narrowings.IsEmpty
        || !Inside.IsEmpty
        || (Trail is not null && WhereItCites.Length > 0)
        || Question
            is TrailQuestion { AtLeast: > 1 }
                or NeighbourQuestion { AtLeast: > 1 }
                or CitersQuestion { Self: not SelfCitations.With }
        || Others is not null
        || Among is not null;
}
