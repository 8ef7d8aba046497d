using CsCheck;
using Zendle.Core.Holdings;
using Zendle.Core.Records;

namespace Zendle.Core.Tests.Holdings;

/// <summary>What lines of holdings say of works: KBART, NISO RP-9-2014.</summary>
public sealed class HoldingAnswerTests
{
    private static readonly DateOnly Today = new(2026, 11, 29);

    private static HoldingLine Line(
        string first = "",
        (int? Volume, int? Issue) from = default,
        string last = "",
        (int? Volume, int? Issue) to = default,
        string embargo = "",
        HoldingDepth depth = HoldingDepth.FullText
    ) =>
        new()
        {
            Title = "Night and Hedge",
            Keys = [9000137],
            First = new(PartialDate.Read(first), from.Volume, from.Issue),
            Last = new(PartialDate.Read(last), to.Volume, to.Issue),
            Embargo = Embargo.Read(embargo),
            EmbargoCode = embargo,
            Depth = depth,
        };

    private static HeldItem Item(string date, int? volume = null, int? issue = null) =>
        new([9000137], PartialDate.Read(date), volume, issue);

    [Theory]
    // From the middle of 1998 on: the year alone does not tell, the month does, volume and issue do.
    [InlineData("1998-07-01", "1997", null, null, Coverage.Earlier)]
    [InlineData("1998-07-01", "1998", null, null, Coverage.PerhapsHeld)]
    [InlineData("1998-07-01", "1998-06", null, null, Coverage.Earlier)]
    [InlineData("1998-07-01", "1998-07", null, null, Coverage.Held)]
    [InlineData("1998-07-01", "1998", 12, 3, Coverage.Earlier)]
    [InlineData("1998-07-01", "1998", 12, 4, Coverage.Held)]
    [InlineData("1998-07-01", "1998", 12, null, Coverage.PerhapsHeld)]
    [InlineData("1998-07-01", "1998", 13, null, Coverage.Held)]
    // An issue that is dated a year late is known by its volume; two years off, the date is believed.
    [InlineData("1998-07-01", "1999", 12, 1, Coverage.Earlier)]
    [InlineData("1998-07-01", "2000", 12, 1, Coverage.Held)]
    // A whole year, but its first issues are not there: volume and issue are finer than the date.
    [InlineData("1998", "1998", 12, 3, Coverage.Earlier)]
    [InlineData("1998", "1998", null, null, Coverage.Held)]
    public void A_work_is_held_from_the_first_issue_on(
        string first,
        string date,
        int? volume,
        int? issue,
        Coverage coverage
    ) => Assert.Equal(coverage, HoldingAnswer.Of(Item(date, volume, issue), Line(first, (12, 4)), Today).Coverage);

    [Theory]
    [InlineData("2010", null, null, Coverage.PerhapsHeld)]
    [InlineData("2010-03", null, null, Coverage.Held)]
    [InlineData("2010-04", null, null, Coverage.Later)]
    [InlineData("2011", 40, 2, Coverage.Held)]
    [InlineData("2012", 40, 2, Coverage.Later)]
    [InlineData("2010", 40, 2, Coverage.Held)]
    [InlineData("2010", 40, 3, Coverage.Later)]
    public void And_to_the_last(string date, int? volume, int? issue, Coverage coverage) =>
        Assert.Equal(
            coverage,
            HoldingAnswer.Of(Item(date, volume, issue), Line(last: "2010-03-31", to: (40, 2)), Today).Coverage
        );

    [Theory]
    // P1Y leaves out the calendar year that runs; R10Y keeps ten calendar years, this one among them.
    [InlineData("P1Y", "2025", Coverage.Held, null)]
    [InlineData("P1Y", "2026", Coverage.Embargoed, "2027-01-01")]
    [InlineData("P2Y", "2025", Coverage.Embargoed, "2027-01-01")]
    [InlineData("R10Y", "2017", Coverage.Held, null)]
    [InlineData("R10Y", "2016", Coverage.Earlier, null)]
    // Months count as calendar months: two of them are November and October.
    [InlineData("P2M", "2026-09", Coverage.Held, null)]
    [InlineData("P2M", "2026-10", Coverage.Embargoed, "2026-12-01")]
    [InlineData("P2M", "2026", Coverage.PerhapsHeld, null)]
    [InlineData("P180D", "2026-06-02", Coverage.Held, null)]
    [InlineData("P180D", "2026-06-03", Coverage.Embargoed, "2026-11-30")]
    [InlineData("R10Y;P1Y", "2026", Coverage.Embargoed, "2027-01-01")]
    [InlineData("R10Y;P1Y", "2016", Coverage.Earlier, null)]
    [InlineData("one year", "2020", Coverage.PerhapsHeld, null)]
    public void Embargoes_count_from_today(string code, string date, Coverage coverage, string? opens)
    {
        var answer = HoldingAnswer.Of(Item(date), Line(embargo: code), Today);
        Assert.Equal(coverage, answer.Coverage);
        Assert.Equal(
            opens is null ? null : DateOnly.Parse(opens, System.Globalization.CultureInfo.InvariantCulture),
            answer.OpensOn
        );
    }

    [Fact]
    public void The_best_of_several_lines_counts_and_abstracts_are_no_text()
    {
        var gap = new[] { Line(last: "2012"), Line("2020") };
        Assert.Equal(Coverage.Held, HoldingAnswer.Of(Item("2011"), gap, Today).Coverage);
        Assert.Equal(Coverage.Held, HoldingAnswer.Of(Item("2021"), gap, Today).Coverage);
        Assert.False(HoldingAnswer.Of(Item("2015"), gap, Today).IsOfUse);
        Assert.Equal(
            Coverage.AbstractsOnly,
            HoldingAnswer.Of(Item("2015"), [Line(depth: HoldingDepth.Abstracts)], Today).Coverage
        );
        Assert.Equal(
            Coverage.PerhapsHeld,
            HoldingAnswer.Of(Item("2015"), [Line(depth: HoldingDepth.SomeArticles)], Today).Coverage
        );
        Assert.Equal(Coverage.NotListed, HoldingAnswer.Of(Item("2015"), [], Today).Coverage);
    }

    /// <summary>
    /// Held against a plain reading day by day: a work told by its year is held when every day of the year is covered, not
    /// when none is, and perhaps when some are.
    /// </summary>
    [Fact]
    public void By_dates_alone_an_answer_is_what_every_single_day_says()
    {
        var date = Gen.Select(Gen.Int[2014, 2026], Gen.Int[0, 12]).Select((y, m) => m == 0 ? $"{y}" : $"{y}-{m:00}");
        var embargo = Gen.Select(Gen.Int[0, 1], Gen.Int[0, 40], Gen.Int[0, 1])
            .Select((t, n, u) => $"{"RP"[t]}{(u == 1 ? n / 8 : n)}{"MY"[u]}");
        Gen.Select(date, date, Gen.OneOf(Gen.Const(""), embargo, embargo), date)
            .Sample(
                (first, last, code, appeared) =>
                {
                    var line = Line(first, default, last, default, code);
                    var (begin, end) = (PartialDate.Read(first)!.Value.First, PartialDate.Read(last)!.Value.Last);
                    var item = PartialDate.Read(appeared)!.Value;
                    var (covered, days) = (0, 0);
                    for (var day = item.First; day <= item.Last; day = day.AddDays(1), days++)
                        if (day >= begin && day <= end && IsOpen(code, day))
                            covered++;
                    var coverage = HoldingAnswer.Of(Item(appeared), line, Today).Coverage;
                    if (covered == days)
                        Assert.Equal(Coverage.Held, coverage);
                    else if (coverage == Coverage.Held || (covered > 0 && coverage != Coverage.PerhapsHeld))
                        Assert.Fail($"{appeared} in {first}–{last} {code}: {covered} of {days} days, said {coverage}");
                },
                iter: 3_000
            );
    }

    /// <summary>The same codes, counted in months from the year 0.</summary>
    private static bool IsOpen(string code, DateOnly day)
    {
        if (code.Length == 0)
            return true;
        var n = int.Parse(code[1..^1], System.Globalization.CultureInfo.InvariantCulture);
        var ago = code[^1] == 'Y' ? Today.Year - day.Year : ((Today.Year - day.Year) * 12) + Today.Month - day.Month;
        return code[0] == 'R' ? ago < n : ago >= n;
    }
}
