namespace Zendle.Core.Merging;

/// <summary>
/// All that references find a record by, worked out from the record alone: its keys, and the words of its titles.
/// </summary>
public sealed record Findable
{
    /// <summary>The record's work.</summary>
    public required int Work { get; init; }

    /// <summary>Its year; 0 when unknown.</summary>
    public required int Year { get; init; }

    /// <summary>Its keys, each once; those that name the work by themselves come first.</summary>
    public required ulong[] Keys { get; init; }

    /// <summary>How many of the keys name the work by themselves; the others propose it.</summary>
    public required int NamingCount { get; init; }

    /// <summary>Names of references that a person said mean the work.</summary>
    public ulong[] Resolved { get; init; } = [];

    /// <summary>For each title how many words its main part has, how many it has, and their hashes.</summary>
    public required int[] Titles { get; init; }

    /// <summary>Key of the first person's family name; empty for none.</summary>
    public required string FirstPerson { get; init; }

    /// <summary>Volume; null for none.</summary>
    public string? Volume { get; init; }

    /// <summary>First page; null for none.</summary>
    public string? FirstPage { get; init; }

    /// <summary>Whether it is a notice about another work.</summary>
    public bool IsNotice { get; init; }

    /// <summary>The keys' lower halves.</summary>
    public int[] Halves => Array.ConvertAll(Keys, k => unchecked((int)k));

    /// <summary>The lower halves of <see cref="Resolved"/>.</summary>
    public int[] ResolvedHalves => Array.ConvertAll(Resolved, k => unchecked((int)k));

    /// <summary>The keys as they are compared when a record changes.</summary>
    public FoundBy By => new(Work, Year, Halves[..NamingCount], Halves[NamingCount..], ResolvedHalves);

    /// <summary>
    /// Works out what references find a record by. As long as no record comes, changes or goes that has one of the keys
    /// a reference asks for (<see cref="ReferenceMatcher.AskedBy"/>), the reference means what it meant.
    /// </summary>
    /// <param name="work">Its work.</param>
    /// <param name="doi"><see cref="MergeKeys.Doi"/> of it; 0 for none.</param>
    /// <param name="title"><see cref="MergeKeys.TitleAndPerson"/> of it; 0 for none.</param>
    /// <param name="year">Its year; 0 when unknown.</param>
    /// <param name="facts">What merging knows of it, so that its words are found too; null for keys alone.</param>
    public static Findable Of(int work, ulong doi, ulong title, int year, MergeFacts? facts)
    {
        var first = facts?.Families.Length > 0 ? facts.Families[0] : "";
        ulong[] naming =
        [
            .. new[] { doi, title }
                .Concat(facts?.Titles.Skip(1).Select(t => MergeKeys.TitleAndPerson(t, first)) ?? [])
                .Where(k => k != 0)
                .Distinct(),
        ];
        return new()
        {
            Work = work,
            Year = year,
            Keys = facts is null
                ? naming
                : [.. naming.Concat(facts.Titles.SelectMany(t => Proposing(facts, first, t))).Distinct()],
            NamingCount = naming.Length,
            Titles = facts is null ? [] : TitlesOf(facts),
            FirstPerson = first,
            Volume = facts?.Volume,
            FirstPage = facts?.FirstPage,
            IsNotice = facts?.Notice.Length > 0,
        };
    }

    /// <summary>The keys under which a record with one of its titles is proposed.</summary>
    private static IEnumerable<ulong> Proposing(MergeFacts facts, string first, string title)
    {
        if (facts.Year is { } year)
        {
            if (first.Length > 0)
                yield return MergeKeys.PersonAndYear(first, year);
            if (facts.Volume is { } volume && facts.FirstPage is { } page)
                yield return MergeKeys.Location(volume, page, year);
        }
        if (title.AsSpan().Count(' ') >= 4)
            yield return MergeKeys.Of("title", title);
    }

    private static int[] TitlesOf(MergeFacts facts)
    {
        var packed = new List<int>();
        foreach (var title in facts.Titles)
        {
            var words = title.Split(' ');
            packed.Add(title == facts.Titles[0] ? facts.MainTitle.AsSpan().Count(' ') + 1 : int.MaxValue);
            packed.Add(words.Length);
            foreach (var word in words)
                packed.Add(MergeKeys.Word(word));
        }
        return [.. packed];
    }
}
