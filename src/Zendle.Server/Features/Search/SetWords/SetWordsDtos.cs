using Zendle.Index.Terms;

namespace Zendle.Server.Features.Search.SetWords;

/// <summary>Whether a term's share of the set changes over the decades, sure to one in a hundred.</summary>
internal enum TermTrend
{
    /// <summary>No trend can be told.</summary>
    Even,

    /// <summary>Its share rises.</summary>
    Rising,

    /// <summary>Its share falls.</summary>
    Falling,
}

/// <summary>A decade of a set.</summary>
/// <param name="From">Its first year.</param>
/// <param name="Works">Works of the set in it; in the first decade also older ones.</param>
internal sealed record DecadeDto(int From, int Works);

/// <summary>A term of a set.</summary>
/// <param name="Text">The term.</param>
/// <param name="Expression">What is searched for inside the set: the term and its variants.</param>
/// <param name="Works">Works of the set that have it.</param>
/// <param name="Decades">How many of them are of each decade.</param>
/// <param name="Trend">Whether its share rises or falls.</param>
internal sealed record SetTermDto(
    string Text,
    string Expression,
    int Works,
    IReadOnlyList<int> Decades,
    TermTrend Trend
)
{
    public static SetTermDto Of(SetTerm term) =>
        new(term.Text, term.Expression, term.Works, term.Decades, TrendOf(term));

    public static TermTrend TrendOf(SetTerm term) =>
        term.Trend >= Core.Terms.Trend.Sure ? TermTrend.Rising
        : term.Trend <= -Core.Terms.Trend.Sure ? TermTrend.Falling
        : TermTrend.Even;
}

/// <summary>Two terms that stand together more often than chance would have it.</summary>
/// <param name="First">The commoner one.</param>
/// <param name="Second">The other.</param>
/// <param name="Expressions">What is searched for inside the set; both must hold.</param>
/// <param name="Works">Works of the set that have both.</param>
internal sealed record TermPairDto(string First, string Second, IReadOnlyList<string> Expressions, int Works);

/// <summary>A value of a field with the works of the set that have it.</summary>
internal sealed record SetNameDto(string Name, int Works);

/// <summary>What words a set uses.</summary>
/// <param name="Total">Works in the set.</param>
/// <param name="Decades">The decades it spans, 8 at most.</param>
/// <param name="Undated">Works without a year, which are in no decade.</param>
/// <param name="Terms">Its commonest terms, but for those of the search, the commonest first.</param>
/// <param name="Pairs">Pairs of these, the most telling first.</param>
/// <param name="Methods">Terms that name methods, the commonest first.</param>
/// <param name="Keywords">Keywords, the commonest first.</param>
/// <param name="Countries">Countries the works are about, the commonest first.</param>
internal sealed record SetWordsDto(
    int Total,
    IReadOnlyList<DecadeDto> Decades,
    int Undated,
    IReadOnlyList<SetTermDto> Terms,
    IReadOnlyList<TermPairDto> Pairs,
    IReadOnlyList<SetTermDto> Methods,
    IReadOnlyList<SetNameDto> Keywords,
    IReadOnlyList<SetNameDto> Countries
)
{
    public static SetWordsDto Of(WordsOfSet words) =>
        new(
            words.Total,
            [.. words.Decades.Select(d => new DecadeDto(d.From, d.Works))],
            words.Undated,
            [.. words.Terms.Select(SetTermDto.Of)],
            [
                .. words.Pairs.Select(p => new TermPairDto(
                    p.First.Text,
                    p.Second.Text,
                    [p.First.Expression, p.Second.Expression],
                    p.Works
                )),
            ],
            [.. words.Methods.Select(SetTermDto.Of)],
            [.. words.Keywords.Select(k => new SetNameDto(k.Name, k.Works))],
            [.. words.Countries.Select(c => new SetNameDto(c.Name, c.Works))]
        );
}
