using System.Collections.Immutable;
using Zendle.Core.Records;
using Zendle.Core.Venues;

namespace Zendle.Core.Merging;

/// <summary>How two records agree on identifiers.</summary>
public enum IdentifierLevel
{
    /// <summary>At least one has none of a kind the other has.</summary>
    Unknown,

    /// <summary>The same DOI, ISBN or number of a database.</summary>
    Same,

    /// <summary>One declares the other's DOI as a version of the same work.</summary>
    DeclaredVersion,

    /// <summary>Two DOIs, of which one is a preprint's or a manuscript's.</summary>
    DifferentVersions,

    /// <summary>Two identifiers of one kind that differ.</summary>
    Different,
}

/// <summary>How two titles agree; the best pair of their titles counts.</summary>
public enum TitleLevel
{
    /// <summary>One has none, or one is translated and they cannot be compared.</summary>
    Unknown,

    /// <summary>The same words.</summary>
    Same,

    /// <summary>One is the other's beginning, up to its subtitle.</summary>
    Beginning,

    /// <summary>Trigrams overlap by 0.85 and more (Jaccard).</summary>
    VeryClose,

    /// <summary>Trigrams overlap by 0.65 and more.</summary>
    Close,

    /// <summary>Trigrams overlap by 0.4 and more.</summary>
    Loose,

    /// <summary>Less.</summary>
    Different,
}

/// <summary>How two years agree.</summary>
public enum YearLevel
{
    /// <summary>One has none.</summary>
    Unknown,

    /// <summary>The same.</summary>
    Same,

    /// <summary>One apart.</summary>
    OneApart,

    /// <summary>Two or three apart.</summary>
    Near,

    /// <summary>More.</summary>
    Different,
}

/// <summary>How two lists of people agree.</summary>
public enum PeopleLevel
{
    /// <summary>One has none.</summary>
    Unknown,

    /// <summary>Two and more, the same in order.</summary>
    Same,

    /// <summary>One person each, the same name.</summary>
    SameOne,

    /// <summary>The same first, and one list is the other's beginning or misses one.</summary>
    Shortened,

    /// <summary>At least half in common.</summary>
    Half,

    /// <summary>Some in common.</summary>
    Some,

    /// <summary>None, or the same family name with other initials.</summary>
    None,
}

/// <summary>How two locations in a venue agree.</summary>
public enum LocationLevel
{
    /// <summary>One does not say.</summary>
    Unknown,

    /// <summary>The same venue, volume and first page.</summary>
    Same,

    /// <summary>The same venue; page or volume are not both known.</summary>
    SameVenue,

    /// <summary>The same venue, but another volume or first page.</summary>
    OtherPage,

    /// <summary>Another venue.</summary>
    OtherVenue,
}

/// <summary>How two kinds of document agree.</summary>
public enum KindLevel
{
    /// <summary>One does not say.</summary>
    Unknown,

    /// <summary>The same.</summary>
    Same,

    /// <summary>Kinds that one work goes through or that databases mix up: article, review, preprint, report.</summary>
    Akin,

    /// <summary>A conference paper and an article: mostly two works on one study.</summary>
    PaperAndArticle,

    /// <summary>Kinds that are never one work.</summary>
    Apart,
}

/// <summary>How two records compare, field by field: what evidence of a join is made of.</summary>
/// <param name="Identifier">Identifiers.</param>
/// <param name="Title">Titles.</param>
/// <param name="Year">Years.</param>
/// <param name="People">People.</param>
/// <param name="Location">Venue, volume and page.</param>
/// <param name="Kind">Kinds of document.</param>
public readonly record struct Comparison(
    IdentifierLevel Identifier,
    TitleLevel Title,
    YearLevel Year,
    PeopleLevel People,
    LocationLevel Location,
    KindLevel Kind
)
{
    /// <summary>Packs the levels into one number, three bits each.</summary>
    public int Packed =>
        (int)Identifier | (int)Title << 3 | (int)Year << 6 | (int)People << 9 | (int)Location << 12 | (int)Kind << 15;

    /// <summary>Unpacks what <see cref="Packed"/> packed.</summary>
    public static Comparison Unpack(int packed) =>
        new(
            (IdentifierLevel)(packed & 7),
            (TitleLevel)(packed >> 3 & 7),
            (YearLevel)(packed >> 6 & 7),
            (PeopleLevel)(packed >> 9 & 7),
            (LocationLevel)(packed >> 12 & 7),
            (KindLevel)(packed >> 15 & 7)
        );

    /// <summary>Compares two records. Symmetric; O(length of titles and lists).</summary>
    public static Comparison Of(MergeFacts a, MergeFacts b) =>
        new(
            Identifiers(a, b),
            Titles(a, b),
            Years(a.Year, b.Year),
            PeopleOf(a, b),
            LocationOf(a, b),
            Kinds(a.Type, b.Type)
        );

    /// <summary>
    /// Whether two records can never be one work, whatever else agrees: a notice and what it speaks of, titles that are
    /// alike but differ in a number (part 1 and part 2), two identifiers of one kind that no version explains. Without
    /// an identifier in common, titles or people that differ or cannot be compared need the same page of the same
    /// venue, and years more than three apart are two works: what people publish together each year looks alike in all
    /// else. A title that says little ("Editorial") or has nothing beside it needs that page too, or several people and
    /// the year.
    /// </summary>
    /// <param name="a">One record.</param>
    /// <param name="b">The other.</param>
    /// <param name="compared">How they compare.</param>
    public static bool Forbids(MergeFacts a, MergeFacts b, Comparison compared)
    {
        if (a.Notice != b.Notice || compared.Identifier == IdentifierLevel.Different)
            return true;
        if (compared.Identifier is IdentifierLevel.Same or IdentifierLevel.DeclaredVersion)
            return false;
        if (compared.Year == YearLevel.Different)
            return true;
        // A thesis and its article, a book and its chapter, data and their article: title and people are not enough,
        // the same place is. An "article" that appeared nowhere may be a thesis that a crawler calls so.
        if (
            compared.Kind == KindLevel.Apart
            && compared.Location is not (LocationLevel.Same or LocationLevel.SameVenue)
            && (a.Venue.Length > 0 || b.Venue.Length > 0 || IsPartOrData(a) || IsPartOrData(b))
        )
            return true;
        if (compared.Kind == KindLevel.PaperAndArticle && compared.Location == LocationLevel.OtherVenue)
            return true;
        if (
            compared.Location != LocationLevel.Same
            && (
                compared.People == PeopleLevel.None
                || compared.Title is TitleLevel.Unknown or TitleLevel.Loose or TitleLevel.Different
            )
        )
            return true;
        if (
            compared.Location != LocationLevel.Same
            && compared.Year != YearLevel.Same
            && compared.People == PeopleLevel.Unknown
        )
            return true;
        if (
            compared.Location != LocationLevel.Same
            && (SaysLittle(a) || SaysLittle(b))
            && !(compared.Year == YearLevel.Same && compared.People == PeopleLevel.Same)
        )
            return true;
        return compared.Title switch
        {
            // One page of one volume is one work, however its title was misread.
            TitleLevel.VeryClose or TitleLevel.Close => compared.Location != LocationLevel.Same
                && !a.IsTranslated
                && !b.IsTranslated
                && DiffersInMeaning(a, b),
            TitleLevel.Loose => a.Numbers != b.Numbers && !a.IsTranslated && !b.IsTranslated,
            TitleLevel.Beginning => IsPart(a.Titles[0], b.Titles[0])
                || (compared.Location != LocationLevel.Same && !EndsWhereTheOtherHasItsSubtitle(a, b)),
            _ => false,
        };
    }

    /// <summary>
    /// Whether every two of their titles that are alike differ in a word that makes another study of it.
    /// </summary>
    private static bool DiffersInMeaning(MergeFacts a, MergeFacts b)
    {
        for (var i = 0; i < a.Titles.Length; i++)
        for (var j = 0; j < b.Titles.Length; j++)
            if (OneTitle((a, i), (b, j)) <= TitleLevel.Close && !TitleDifference.IsMeaningful(a.Titles[i], b.Titles[j]))
                return false;
        return true;
    }

    /// <summary>A subtitle gets lost; words in the middle of a title do not.</summary>
    private static bool EndsWhereTheOtherHasItsSubtitle(MergeFacts a, MergeFacts b) =>
        a.Titles.Contains(b.MainTitle) || b.Titles.Contains(a.MainTitle);

    private static bool IsPartOrData(MergeFacts facts) =>
        facts.Type
            is DocumentType.Chapter
                or DocumentType.Dataset
                or DocumentType.Correction
                or DocumentType.RetractionNotice;

    private static bool SaysLittle(MergeFacts facts) =>
        facts.Titles.Length == 0 || facts.Titles.All(t => t.Count(c => c == ' ') < 2);

    private static bool IsPart(string a, string b)
    {
        var (brief, full) = a.Length < b.Length ? (a, b) : (b, a);
        return full.AsSpan(Math.Min(full.Length, brief.Length))
            .TrimStart()
            .StartsWith("part ", StringComparison.Ordinal);
    }

    private static IdentifierLevel Identifiers(MergeFacts a, MergeFacts b)
    {
        if (a.Doi is not null && b.Doi is not null)
        {
            if (a.Doi == b.Doi)
                return IdentifierLevel.Same;
            if (
                a.VersionDois.Contains(b.Doi)
                || b.VersionDois.Contains(a.Doi)
                || a.VersionDois.Any(b.VersionDois.Contains)
            )
                return IdentifierLevel.DeclaredVersion;
            return a.IsBeforeReview != b.IsBeforeReview ? IdentifierLevel.DifferentVersions : IdentifierLevel.Different;
        }
        if (a.OwnNumbers.Any(b.OwnNumbers.Contains))
            return IdentifierLevel.Same;
        if (a.OwnNumbers.Any(x => IsOfTheWork(x) && b.OwnNumbers.Any(y => KindOf(x) == KindOf(y))))
            return IdentifierLevel.Different;
        if (a.Isbn is not null && b.Isbn is not null)
            return a.Isbn == b.Isbn ? IdentifierLevel.Same : IdentifierLevel.Different;
        return
            (a.Doi is not null && b.VersionDois.Contains(a.Doi)) || (b.Doi is not null && a.VersionDois.Contains(b.Doi))
            ? IdentifierLevel.DeclaredVersion
            : IdentifierLevel.Unknown;
    }

    /// <summary>
    /// Whether a number names the work and not a copy of it: every repository gives its copy a handle of its own.
    /// </summary>
    private static bool IsOfTheWork(string number) => KindOf(number) is not ("hdl:" or "ark:" or "urn:");

    private static string KindOf(string number) => number[..(number.IndexOf(':', StringComparison.Ordinal) + 1)];

    private static TitleLevel Titles(MergeFacts a, MergeFacts b)
    {
        var best = TitleLevel.Unknown;
        for (var i = 0; i < a.Titles.Length; i++)
        for (var j = 0; j < b.Titles.Length; j++)
        {
            var level = OneTitle((a, i), (b, j));
            if (best == TitleLevel.Unknown || level < best)
                best = level;
        }
        // A translated title that does not agree tells nothing.
        return best >= TitleLevel.Loose && a.IsTranslated != b.IsTranslated ? TitleLevel.Unknown : best;
    }

    private static TitleLevel OneTitle((MergeFacts Facts, int At) a, (MergeFacts Facts, int At) b)
    {
        var (x, y) = (a.Facts.Titles[a.At], b.Facts.Titles[b.At]);
        if (x == y)
            return TitleLevel.Same;
        var (brief, full) = x.Length < y.Length ? (x, y) : (y, x);
        if (brief.Length >= 20 && full.StartsWith(brief, StringComparison.Ordinal) && full[brief.Length] == ' ')
            return TitleLevel.Beginning;
        return Overlap(a.Facts.Trigrams[a.At], b.Facts.Trigrams[b.At]) switch
        {
            >= 0.85 => TitleLevel.VeryClose,
            >= 0.65 => TitleLevel.Close,
            >= 0.4 => TitleLevel.Loose,
            _ => TitleLevel.Different,
        };
    }

    /// <summary>Jaccard overlap of two ascending lists, 0 to 1.</summary>
    public static double Overlap(ReadOnlySpan<int> a, ReadOnlySpan<int> b)
    {
        var (i, j, both) = (0, 0, 0);
        while (i < a.Length && j < b.Length)
        {
            if (a[i] == b[j])
            {
                both++;
                i++;
                j++;
            }
            else if (a[i] < b[j])
                i++;
            else
                j++;
        }
        var all = a.Length + b.Length - both;
        return all == 0 ? 0 : (double)both / all;
    }

    private static YearLevel Years(int? a, int? b) =>
        a is null || b is null
            ? YearLevel.Unknown
            : Math.Abs(a.Value - b.Value) switch
            {
                0 => YearLevel.Same,
                1 => YearLevel.OneApart,
                <= 3 => YearLevel.Near,
                _ => YearLevel.Different,
            };

    private static PeopleLevel PeopleOf(MergeFacts a, MergeFacts b)
    {
        var (x, y) = (a.Families, b.Families);
        if (x.Length == 0 || y.Length == 0)
            return PeopleLevel.Unknown;
        var sameFirst = x[0] == y[0];
        if (sameFirst && a.Initials[0] != b.Initials[0] && a.Initials[0] != '\0' && b.Initials[0] != '\0')
            return PeopleLevel.None;
        if (x.AsSpan().SequenceEqual(y.AsSpan()))
            return x.Length == 1 ? PeopleLevel.SameOne : PeopleLevel.Same;
        var both = InCommon(x, y);
        if (sameFirst && both == Math.Min(x.Length, y.Length))
            return PeopleLevel.Shortened;
        return both == 0 ? PeopleLevel.None
            : both * 2 >= Math.Min(x.Length, y.Length) ? PeopleLevel.Half
            : PeopleLevel.Some;
    }

    /// <summary>
    /// How many names two lists have in common; one that stands twice in both counts twice. O(names).
    /// </summary>
    private static int InCommon(ImmutableArray<string> x, ImmutableArray<string> y)
    {
        var left = x.CountBy(f => f).ToDictionary();
        var both = 0;
        foreach (var family in y)
            if (left.TryGetValue(family, out var n) && n > 0)
            {
                left[family] = n - 1;
                both++;
            }
        return both;
    }

    private static LocationLevel LocationOf(MergeFacts a, MergeFacts b)
    {
        if (a.Venue.Length == 0 || b.Venue.Length == 0)
            return LocationLevel.Unknown;
        if (!(a.Issn is not null && b.Issn is not null ? a.Issn == b.Issn : VenueNames.Agree(a.Venue, b.Venue)))
            return LocationLevel.OtherVenue;
        if (a.FirstPage is not null && b.FirstPage is not null && a.FirstPage != b.FirstPage)
            return LocationLevel.OtherPage;
        if (a.Volume is not null && b.Volume is not null && a.Volume != b.Volume)
            return LocationLevel.OtherPage;
        return a.FirstPage is not null && b.FirstPage is not null ? LocationLevel.Same : LocationLevel.SameVenue;
    }

    private static KindLevel Kinds(DocumentType a, DocumentType b)
    {
        if (a == DocumentType.Other || b == DocumentType.Other)
            return KindLevel.Unknown;
        if (a == b)
            return KindLevel.Same;
        if (Apart(a) != Apart(b))
            return KindLevel.Apart;
        return a == DocumentType.ConferencePaper || b == DocumentType.ConferencePaper
            ? KindLevel.PaperAndArticle
            : KindLevel.Akin;
    }

    /// <summary>Kinds that hardly ever join another kind.</summary>
    private static int Apart(DocumentType type) =>
        type switch
        {
            DocumentType.Correction => 1,
            DocumentType.RetractionNotice => 2,
            DocumentType.Letter => 3,
            DocumentType.Editorial => 4,
            DocumentType.Dataset => 5,
            DocumentType.Book => 6,
            DocumentType.Chapter => 7,
            DocumentType.Thesis => 8,
            _ => 0,
        };
}
