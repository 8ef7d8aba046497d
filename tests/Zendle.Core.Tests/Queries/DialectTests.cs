using CsCheck;
using Zendle.Core.Queries;

namespace Zendle.Core.Tests.Queries;

/// <summary>
/// Ways of writing that people bring from elsewhere: taken where their meaning is clear, and said; else pointed out
/// with a repair. Nothing is misread in silence.
/// </summary>
public sealed class DialectTests
{
    [Theory]
    [InlineData("light -moth", "light AND (NOT moth)", "The minus at 7 is read as NOT.")]
    [InlineData("light -\"street lamp\"", "light AND (NOT \"street lamp\")", "The minus at 7 is read as NOT.")]
    [InlineData("light -(moth OR bat)", "light AND (NOT (moth OR bat))", "The minus at 7 is read as NOT.")]
    [InlineData("light \u2212moth", "light AND (NOT moth)", "The minus at 7 is read as NOT.")]
    [InlineData(
        "light w/5 moth",
        "light NEAR/5 moth",
        "“w/5” at 7 is read as NEAR/5: at most 5 words between, in either order."
    )]
    [InlineData(
        "light /3 moth",
        "light NEAR/3 moth",
        "“/3” at 7 is read as NEAR/3: at most 3 words between, in either order."
    )]
    [InlineData(
        "light N/0 moth",
        "light NEAR/0 moth",
        "“N/0” at 7 is read as NEAR/0: at most 0 words between, in either order."
    )]
    [InlineData("moth[title]", "title:moth", "“[title]” at 5 is read as title, in front of the words it follows.")]
    [InlineData(
        "moth [ti] light",
        "title:moth AND light",
        "“[ti]” at 6 is read as title, in front of the words it follows."
    )]
    [InlineData(
        "(moth OR bat)[ab]",
        "abstract:(moth OR bat)",
        "“[ab]” at 14 is read as abstract, in front of the words it follows."
    )]
    [InlineData(
        "\"hawk moth\"[title]",
        "title:\"hawk moth\"",
        "“[title]” at 12 is read as title, in front of the words it follows."
    )]
    [InlineData("title=moth", "title:moth", "“title=” at 1 is read as title:")]
    [InlineData("title(moth OR bat)", "title:(moth OR bat)", "“title(” at 1 is read as title:(")]
    [InlineData("ti(moth)", "title:moth", "“ti(” at 1 is read as title:(")]
    [InlineData("lamp(s)", "lamp OR lamps", "“lamp(s)” at 1 is read as lamp or lamps.")]
    [InlineData("light AND moth(s)", "light AND (moth OR moths)", "“moth(s)” at 11 is read as moth or moths.")]
    [InlineData("type:reviews", "type:review", "“reviews” at 6 is read as review.")]
    [InlineData("type:\"PhD thesis\"", "type:thesis", "“PhD thesis” at 6 is read as thesis.")]
    [InlineData("language:deutsch", "language:German", "“deutsch” at 10 is read as German.")]
    [InlineData("type:(reviews OR letter)", "type:(review OR letter)", "“reviews” at 7 is read as review.")]
    public void What_is_clear_is_taken_and_said(string line, string read, string says)
    {
        var reading = QueryReader.Read(line);
        Assert.Empty(reading.Problems);
        Assert.Equal(read, QueryText.Print(reading.Root!));
        var notice = Assert.Single(reading.Notices, n => n.Sentence == says);
        // What is offered first is what was taken: written so, nothing is left to be said of it.
        var taken = QueryReader.Read(notice.Ways[0].Text);
        Assert.Empty(taken.Problems);
        Assert.DoesNotContain(taken.Notices, n => n.Kind == notice.Kind);
        Assert.Equal(read, QueryText.Print(taken.Root!));
    }

    [Theory]
    [InlineData("[moth]", "Square brackets have no meaning here", "moth")]
    [InlineData("light [in lit verges] moth", "Square brackets have no meaning here", "light in lit verges moth")]
    [InlineData("kw:moth", "no field “kw”", "keywords:moth")]
    [InlineData("ti:moth", "no field “ti”", "title:moth")]
    [InlineData("au:Berg", "no field “au”", "author:Berg")]
    [InlineData("journal:Verge", "no field “journal”", "venue:Verge")]
    [InlineData("kw=moth", "no field “kw”", "keywords:moth")]
    [InlineData("xqz:moth", "no field “xqz”", "xqz moth")]
    [InlineData("contains(moth)", "looks like a function", "contains (moth)")]
    [InlineData("type:revew", "No kind of document is called “revew”", "type:review")]
    [InlineData("type:poem", "No kind of document is called “poem”", null)]
    [InlineData("language:klingon", "not a language that Zendle knows", null)]
    [InlineData("stage:keep", "No stage is called “keep”", "stage:kept")]
    [InlineData("issn:1234-5678", "is not an ISSN", null)]
    [InlineData("isbn:123", "is not an ISBN", null)]
    [InlineData("doi:abc", "is not a DOI", null)]
    [InlineData("light -* moth", "stands alone", null)]
    public void What_is_not_clear_is_pointed_out(string line, string says, string? repaired)
    {
        var reading = QueryReader.Read(line);
        Assert.False(reading.IsSound);
        var problem = Assert.Single(reading.Problems, p => p.Sentence.Contains(says, StringComparison.Ordinal));
        if (repaired is not null)
            Assert.Equal(repaired, problem.Repair!.Text);
    }

    [Theory]
    [InlineData("moths 2015", "moths year:2015")]
    [InlineData("moths light 2010-2015", "moths light year:2010-2015")]
    public void A_year_among_words_is_a_word_and_the_year_is_offered(string line, string asYear)
    {
        var notice = Assert.Single(QueryReader.Read(line).Notices, n => n.Kind == NoticeKind.BareYear);
        Assert.Equal([line, asYear], notice.Ways.Select(w => w.Text));
        Assert.True(QueryReader.Read(asYear).IsSound);
    }

    [Theory]
    [InlineData("5-year survey")]
    [InlineData("light-trap moth")]
    [InlineData("moths – and lamps")]
    [InlineData("p=0.05 moths")]
    [InlineData("temperatures of -5 degrees")]
    [InlineData("1/2 moths")]
    [InlineData("http://moths.example")]
    [InlineData("type:rev*")]
    [InlineData("stage:\"set aside\"")]
    [InlineData("language:en")]
    [InlineData("language:German")]
    [InlineData("doi:10.5555/abc")]
    public void What_only_looks_like_it_is_left_alone(string line)
    {
        var reading = QueryReader.Read(line);
        Assert.Empty(reading.Problems);
        Assert.DoesNotContain(reading.Notices, n => n.Kind is NoticeKind.OtherDialect or NoticeKind.FieldValue);
    }

    private static readonly string[] Pieces =
    [
        "moth",
        "light",
        "(",
        ")",
        "OR",
        "AND",
        "NOT",
        "\"hawk moth\"",
        "title:",
        "-bat",
        "w/3",
        "[ti]",
        "kw:",
        "2015",
    ];

    [Fact]
    public void No_offer_holds_what_the_line_was_faulted_for() =>
        Gen.Int[0, Pieces.Length - 1]
            .Select(i => Pieces[i])
            .Array[1, 9]
            .Sample(
                parts =>
                {
                    foreach (var notice in QueryReader.Read(string.Join(' ', parts)).Notices)
                    foreach (var way in notice.Ways)
                        Assert.True(QueryReader.Read(way.Text).IsSound, $"{string.Join(' ', parts)} → {way.Text}");
                },
                iter: 2_000
            );

    [Fact]
    public void A_repair_never_leads_to_a_far_off_field() =>
        Gen.Char['a', 'z']
            .Array[2, 9]
            .Sample(
                letters =>
                {
                    var name = new string(letters);
                    foreach (var near in QueryFields.Nearest(name))
                        Assert.True(
                            QueryFields.Meant(name) is { } meant && QueryFields.Name(meant) == near
                                || near.StartsWith(name, StringComparison.Ordinal)
                                || name.StartsWith(near, StringComparison.Ordinal)
                                || Apart(name, near) * 3 <= Math.Max(name.Length, near.Length),
                            $"{name} → {near}"
                        );
                },
                iter: 3_000
            );

    /// <summary>Edit distance with letters turned round, written out.</summary>
    private static int Apart(string a, string b)
    {
        var table = new int[a.Length + 1, b.Length + 1];
        for (var i = 0; i <= a.Length; i++)
        for (var j = 0; j <= b.Length; j++)
            table[i, j] =
                i == 0 ? j
                : j == 0 ? i
                : i > 1 && j > 1 && a[i - 1] == b[j - 2] && a[i - 2] == b[j - 1]
                    ? Math.Min(Step(i, j), table[i - 2, j - 2] + 1)
                : Step(i, j);
        return table[a.Length, b.Length];

        int Step(int i, int j) =>
            Math.Min(
                Math.Min(table[i - 1, j] + 1, table[i, j - 1] + 1),
                table[i - 1, j - 1] + (a[i - 1] == b[j - 1] ? 0 : 1)
            );
    }
}
