namespace Zendle.Core.Holdings;

/// <summary>Whether a work can be read through a library, and what speaks for or against it; best first.</summary>
public enum Coverage
{
    /// <summary>Its holdings cover the work.</summary>
    Held,

    /// <summary>They may: the work's date or volume is not told exactly enough, or only some articles are there.</summary>
    PerhapsHeld,

    /// <summary>It is held back for some time yet.</summary>
    Embargoed,

    /// <summary>The title is there, but begins later.</summary>
    Earlier,

    /// <summary>The title is there, but ended before.</summary>
    Later,

    /// <summary>Abstracts alone can be read.</summary>
    AbstractsOnly,

    /// <summary>No line names the title.</summary>
    NotListed,
}

/// <summary>What a library's holdings say of a work.</summary>
/// <param name="Coverage">Whether it can be read.</param>
/// <param name="Line">The line that says so; null when none names it.</param>
/// <param name="OpensOn">When an embargo ends; null without one.</param>
public sealed record HoldingAnswer(Coverage Coverage, HoldingLine? Line = null, DateOnly? OpensOn = null)
{
    /// <summary>No line names the title.</summary>
    public static HoldingAnswer NotListed { get; } = new(Coverage.NotListed);

    /// <summary>Whether the text is worth asking the library for.</summary>
    public bool IsOfUse => Coverage is Coverage.Held or Coverage.PerhapsHeld;

    /// <summary>What lines say of a work: the best answer of any of them, the first line before another.</summary>
    /// <param name="item">The work.</param>
    /// <param name="lines">The lines that name one of its identifiers.</param>
    /// <param name="today">The day, from which embargoes count.</param>
    public static HoldingAnswer Of(HeldItem item, IEnumerable<HoldingLine> lines, DateOnly today) =>
        lines.Select(l => Of(item, l, today)).MinBy(a => a.Coverage) ?? NotListed;

    /// <summary>What one line says of a work.</summary>
    public static HoldingAnswer Of(HeldItem item, HoldingLine line, DateOnly today)
    {
        if (line.Depth == HoldingDepth.Abstracts)
            return new(Coverage.AbstractsOnly, line);
        var isSure = line.Depth == HoldingDepth.FullText && line.Embargo.IsRead;
        if (line.IsBook)
            return new(isSure ? Coverage.Held : Coverage.PerhapsHeld, line);
        var begins = Reaches(item, line.First, isBeginning: true);
        if (begins == false)
            return new(Coverage.Earlier, line);
        var ends = Reaches(item, line.Last, isBeginning: false);
        if (ends == false)
            return new(Coverage.Later, line);
        isSure &= begins == true && ends == true;
        if (line.Embargo.From(today) is { } from)
        {
            if (item.Date?.Last < from)
                return new(Coverage.Earlier, line);
            isSure &= item.Date?.First >= from;
        }
        if (line.Embargo.Until(today) is { } until)
        {
            if (item.Date?.First > until)
                return new(Coverage.Embargoed, line, line.Embargo.OpensOn(item.Date.Value.Last));
            isSure &= item.Date?.Last <= until;
        }
        return new(isSure ? Coverage.Held : Coverage.PerhapsHeld, line);
    }

    /// <summary>
    /// Whether a work lies on the right side of an edge; null when that cannot be told. In the year of the edge and those
    /// beside it volume and issue decide where both sides tell them: they are finer than dates, and what appeared online
    /// before its issue is dated a year early or late.
    /// </summary>
    private static bool? Reaches(HeldItem item, CoverageEdge edge, bool isBeginning)
    {
        if (edge.IsOpen)
            return true;
        if (edge.Date is not { } date)
            return ByVolume(item, edge, isBeginning);
        if (item.Date is not { } appeared)
            return ByVolume(item, edge, isBeginning);
        if (Math.Abs(appeared.Year - date.Year) <= 1 && ByVolume(item, edge, isBeginning) is { } byVolume)
            return byVolume;
        return isBeginning
            ? appeared.First >= date.First
                ? true
                : appeared.Last < date.First
                    ? false
                    : null
            : appeared.Last <= date.Last
                ? true
                : appeared.First > date.Last
                    ? false
                    : null;
    }

    private static bool? ByVolume(HeldItem item, CoverageEdge edge, bool isBeginning)
    {
        if (item.Volume is not { } volume || edge.Volume is not { } first)
            return null;
        if (volume != first)
            return volume > first == isBeginning;
        // A volume without an issue at the edge is there from its first to its last.
        if (edge.Issue is not { } issue || (isBeginning && issue <= 1))
            return true;
        return item.Issue is not { } number ? null : number == issue || number > issue == isBeginning;
    }
}
