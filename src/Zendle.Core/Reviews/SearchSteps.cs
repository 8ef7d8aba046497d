using System.Collections.Immutable;
using Zendle.Core.Queries;
using Zendle.Core.Records;
using Zendle.Core.Trails;

namespace Zendle.Core.Reviews;

/// <summary>The fields a set can be narrowed by.</summary>
public enum Facet
{
    /// <summary>Year of publication.</summary>
    Year,

    /// <summary>Kind of document.</summary>
    Type,

    /// <summary>Language of the text.</summary>
    Language,

    /// <summary>Journal, book or proceedings.</summary>
    Venue,

    /// <summary>Subject category.</summary>
    Subject,

    /// <summary>Author or editor.</summary>
    Person,

    /// <summary>Database that holds a record.</summary>
    Database,

    /// <summary>How a text can be had.</summary>
    Text,

    /// <summary>Stage in the review.</summary>
    Stage,

    /// <summary>Tag in the review.</summary>
    Tag,

    /// <summary>Where its people worked, as printed.</summary>
    Affiliation,

    /// <summary>Country it is about.</summary>
    Country,

    /// <summary>Who paid for it.</summary>
    Funder,

    /// <summary>Best quartile of its journal in any subject category, counted in the corpus.</summary>
    Quartile,

    /// <summary>Whether anyone may read it, and in which version.</summary>
    OpenAccess,

    /// <summary>Keyword of the authors or the database.</summary>
    Keyword,
}

/// <summary>What the fields are called in sentences.</summary>
public static class Facets
{
    /// <summary>The name of a field, in lower case.</summary>
    public static string Name(Facet facet) =>
        facet switch
        {
            Facet.Text => "text at hand",
            Facet.OpenAccess => "open access",
            _ => facet.ToString().ToLowerInvariant(),
        };
}

/// <summary>What a step does.</summary>
public enum StepKind
{
    /// <summary>Puts a question, in place of the one before.</summary>
    Search,

    /// <summary>Joins a further part to the question by AND.</summary>
    Add,

    /// <summary>Chooses the databases that are searched.</summary>
    Databases,

    /// <summary>Narrows by years.</summary>
    Years,

    /// <summary>Narrows by the values of a field.</summary>
    Narrow,

    /// <summary>Narrows by words inside the set.</summary>
    Inside,

    /// <summary>Follows a trail from seeds, in place of the question before.</summary>
    Trail,

    /// <summary>Follows the trail another way.</summary>
    Way,

    /// <summary>Narrows a trail to works tied to at least so many seeds.</summary>
    Ties,

    /// <summary>Leaves what another search finds too, or what it does not find.</summary>
    Compare,

    /// <summary>Leaves certain works, written down one by one.</summary>
    Among,
}

/// <summary>One act of searching or narrowing. Only the parts its kind names are set.</summary>
/// <param name="Kind">What it does.</param>
/// <param name="Expression">Search: the expression; Add: the further part.</param>
/// <param name="Databases">Databases: their ids; null or empty for all.</param>
/// <param name="Facet">Narrow: the field.</param>
/// <param name="Values">Narrow: values of which a work has one; Inside: expressions that must all hold.</param>
/// <param name="Excluded">Narrow: values that no record of a work has.</param>
/// <param name="From">Years: first year, or null.</param>
/// <param name="To">Years: last year, or null.</param>
/// <param name="Seeds">Trail: ids of the works it starts from; null for all kept works of that moment. Among: ids of
/// the works that are left.</param>
/// <param name="Way">Trail, Way: which way it runs.</param>
/// <param name="AtLeast">Ties: to how many seeds.</param>
/// <param name="Other">Compare: the acts of the other search, written down, so that it means the same when its own path
/// is changed.</param>
/// <param name="Apart">Compare: whether what the other search finds is taken away, rather than left.</param>
/// <param name="Said">Compare, Among: what the act leaves, in a few words.</param>
public sealed record StepAct(
    StepKind Kind,
    string? Expression = null,
    IReadOnlyList<int>? Databases = null,
    Facet? Facet = null,
    IReadOnlyList<string>? Values = null,
    IReadOnlyList<string>? Excluded = null,
    int? From = null,
    int? To = null,
    IReadOnlyList<int>? Seeds = null,
    TrailWay? Way = null,
    int? AtLeast = null,
    IReadOnlyList<StepAct>? Other = null,
    bool? Apart = null,
    string? Said = null
)
{
    /// <summary>The works that it names one by one, itself or inside the search it is held against.</summary>
    public IEnumerable<int> Works() => (Seeds ?? []).Concat((Other ?? []).SelectMany(a => a.Works()));

    /// <summary>The same act about the works that its numbers stand for today.</summary>
    /// <param name="today">The number of today for a number.</param>
    public StepAct Today(Func<int, int> today) =>
        this with
        {
            Seeds = Seeds is null ? null : [.. Seeds.Select(today).Distinct()],
            Other = Other is null ? null : [.. Other.Select(a => a.Today(today))],
        };
}

/// <summary>Another search that the one in view is held against.</summary>
/// <param name="Acts">What leads to it from nothing.</param>
/// <param name="Apart">Whether what it finds is taken away, rather than left.</param>
/// <param name="Said">What that leaves, in a few words.</param>
public sealed record OtherSearch(IReadOnlyList<StepAct> Acts, bool Apart, string Said)
{
    /// <summary>What it asks.</summary>
    public SearchState State() => SearchState.Of(Acts);
}

/// <summary>A narrowing by the values of a field.</summary>
/// <param name="Facet">The field.</param>
/// <param name="Values">A work has one of these; empty for any.</param>
/// <param name="Excluded">No record of the work has one of these.</param>
public sealed record Narrowing(Facet Facet, ImmutableArray<string> Values, ImmutableArray<string> Excluded);

/// <summary>The question in view: what the acts on the way from the first step to this one add up to.</summary>
/// <param name="Expression">The expression; empty for every work.</param>
/// <param name="Databases">Ids of the databases searched; empty for all.</param>
/// <param name="From">First year, or null.</param>
/// <param name="To">Last year, or null.</param>
/// <param name="Narrowings">One for each narrowed field, in the order they were set.</param>
/// <param name="Inside">Expressions that must hold inside the set.</param>
/// <param name="Trail">The trail that is followed, in place of an expression; null for a search.</param>
/// <param name="Others">Other searches it is held against; null for none.</param>
/// <param name="Among">Ids of the works that are left at most; null for all.</param>
public sealed record SearchState(
    string Expression,
    ImmutableArray<int> Databases,
    int? From,
    int? To,
    ImmutableArray<Narrowing> Narrowings,
    ImmutableArray<string> Inside,
    TrailQuestion? Trail = null,
    IReadOnlyList<OtherSearch>? Others = null,
    IReadOnlyList<int>? Among = null
)
{
    /// <summary>Every work of every database.</summary>
    public static SearchState Everything { get; } = new("", [], null, null, [], []);

    /// <summary>
    /// The state after <paramref name="act"/>. A field's narrowing takes the place of the one before; an empty one
    /// lifts it.
    /// </summary>
    public SearchState After(StepAct act)
    {
        switch (act.Kind)
        {
            case StepKind.Search:
                return this with { Expression = (act.Expression ?? "").Trim(), Trail = null };
            case StepKind.Trail:
                return Everything with { Trail = new([.. (act.Seeds ?? []).Distinct()], act.Way ?? TrailWay.Both) };
            // Ways and ties belong to a trail. Where there is none (its step was taken out) they say nothing.
            case StepKind.Way:
                return Trail is null ? this : this with { Trail = Trail with { Way = act.Way ?? TrailWay.Both } };
            case StepKind.Ties:
                return Trail is null
                    ? this
                    : this with
                    {
                        Trail = Trail with { AtLeast = Math.Max(1, act.AtLeast ?? 1) },
                    };
            case StepKind.Add when Trail is not null:
                return this with { Inside = Inside.Add((act.Expression ?? "").Trim()) };
            case StepKind.Add:
                return this with { Expression = Joined(Expression, (act.Expression ?? "").Trim()) };
            case StepKind.Databases:
                return this with { Databases = [.. (act.Databases ?? []).Distinct().Order()] };
            case StepKind.Years:
                return this with { From = act.From, To = act.To };
            case StepKind.Inside:
                return this with { Inside = [.. (act.Values ?? []).Select(v => v.Trim()).Where(v => v.Length > 0)] };
            case StepKind.Compare:
                return this with
                {
                    Others = [.. Others ?? [], new(act.Other ?? [], act.Apart ?? false, act.Said ?? "")],
                };
            case StepKind.Among:
                var left = (act.Seeds ?? []).ToHashSet();
                return this with { Among = [.. Among is null ? left.Order() : Among.Where(left.Contains)] };
            case StepKind.Narrow:
                var facet = act.Facet ?? throw new ArgumentException("A narrowing names its field.", nameof(act));
                var next = new Narrowing(facet, [.. act.Values ?? []], [.. act.Excluded ?? []]);
                var others = Narrowings.RemoveAll(n => n.Facet == facet);
                return this with
                {
                    Narrowings = next.Values.IsEmpty && next.Excluded.IsEmpty ? others : others.Add(next),
                };
            default:
                throw new ArgumentOutOfRangeException(nameof(act));
        }
    }

    /// <summary>
    /// The act that leads from this state to <paramref name="expression"/>: a further part where the new expression
    /// only goes on from the old one, so that a step in the middle can be taken out; else a new question.
    /// </summary>
    public StepAct Toward(string expression)
    {
        var line = expression.Trim();
        if (
            Identifiers.Doi(line) is { } doi
            && !line.Contains(' ', StringComparison.Ordinal)
            && !line.StartsWith("doi:", StringComparison.OrdinalIgnoreCase)
        )
            return new(StepKind.Search, $"doi:\"{doi}\"");
        if (
            Expression.Length == 0
            || line.Length <= Expression.Length + 1
            || !line.StartsWith(Expression + " ", StringComparison.Ordinal)
        )
            return new(StepKind.Search, line);
        var rest = line[Expression.Length..].TrimStart();
        if (rest.StartsWith("AND ", StringComparison.Ordinal))
            rest = rest[4..].TrimStart();
        // Only where AND binds the new part to the whole of the old one, and nothing else.
        var sound =
            QueryReader.Read(Expression) is { IsSound: true, Root: not OrNode }
            && QueryReader.Read(rest) is { IsSound: true, Root: not OrNode }
            && !StartsWithOperator(rest);
        return sound ? new(StepKind.Add, rest) : new(StepKind.Search, line);
    }

    private static bool StartsWithOperator(string rest) =>
        rest.Split(' ', 2)[0].ToUpperInvariant() is "OR" or "AND" or "|" or "||" or "&" or "&&"
        || rest.StartsWith("NEAR", StringComparison.OrdinalIgnoreCase);

    private static string Joined(string before, string part)
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
        (Trail?.Seeds ?? [])
            .Concat(Among ?? [])
            .Concat((Others ?? []).SelectMany(o => o.Acts).SelectMany(a => a.Works()));

    /// <summary>The same question about the works that its numbers stand for today.</summary>
    /// <param name="today">The number of today for a number.</param>
    public SearchState Today(Func<int, int> today) =>
        this with
        {
            Trail = Trail is null ? null : Trail with { Seeds = [.. Trail.Seeds.Select(today).Distinct()] },
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

    private static bool Names(string expression) =>
        expression.Contains("stage:", StringComparison.OrdinalIgnoreCase)
        || expression.Contains("tag:", StringComparison.OrdinalIgnoreCase);

    /// <summary>Whether anything beside the expression and the databases holds works back.</summary>
    public bool IsNarrowed =>
        From is not null
        || To is not null
        || !Narrowings.IsEmpty
        || !Inside.IsEmpty
        || Trail is { AtLeast: > 1 }
        || Others is not null
        || Among is not null;
}
