using Xunit;
using Zendle.Core.FullText;

namespace Zendle.Core.Tests.FullText;

/// <summary>Which sentences of a document cite which of its references.</summary>
public sealed class CitingSentencesTests
{
    private static readonly string[] ByNames =
    [
        "Arvesund, A., & Bellmoor, K. (2004). Moths under lamps. Ledger of Moths 3, 1–9.",
        "Cattrick, D. (2010a). Bats at bridges. Ledger of Bats 1, 2–3.",
        "Cattrick, D. (2010b). Bats at barns. Ledger of Bats 1, 4–5.",
        "Moe-Berg, Ø., Dunvale, P., & Ekholt, R. (2015). Lamps of three colours. Night Letters 8, 3–7.",
        "van der Lind, T. (2015). On toads. Night Letters 8, 9–12.",
    ];

    private static (string[] Sentences, int[][] Entries) Read(string[] body, string[] entries, bool isNumbered = false)
    {
        var lines = new List<ReadLine>();
        var page = 1;
        foreach (var line in body)
        {
            if (line == "---")
                page++;
            else
                Add(line, 10);
        }
        var head = lines.Count;
        Add("References", 12, isBold: true);
        foreach (var entry in entries)
            Add(entry, 9);
        var found = CitingSentences.In(lines, new(entries, [head..lines.Count], isNumbered));
        return ([.. found.Select(f => $"{f.Page}: {f.Text}")], [.. found.Select(f => f.Entries.ToArray())]);

        void Add(string text, double size, bool isBold = false) =>
            lines.Add(new(new(text, page, 50, 500, 700 - lines.Count * 12, size, isBold), 0));
    }

    [Fact]
    public void Names_and_years_in_brackets_and_in_the_sentence_cite()
    {
        var (sentences, entries) = Read(
            [
                "Introduction of lamps came early. Moths gather at them (Arvesund & Bell-",
                "moor, 2004; Moe-Berg et al., 2015). Nobody knows why.",
                "---",
                "Cattrick (2010b) saw bats at barns, e.g. in spring. As Van der Lind, T. (2015) says, toads",
                "wait. Temperatures rose in 2015. Both were seen again (Cattrick 2010a, 2010b).",
            ],
            ByNames
        );
        Assert.Equal(
            [
                "1: Moths gather at them (Arvesund & Bellmoor, 2004; Moe-Berg et al., 2015).",
                "2: Cattrick (2010b) saw bats at barns, e.g. in spring.",
                "2: As Van der Lind, T. (2015) says, toads wait.",
                "2: Both were seen again (Cattrick 2010a, 2010b).",
            ],
            sentences
        );
        Assert.Equal(
            [
                [0, 3],
                [2],
                [4],
                [1, 2],
            ],
            entries
        );
    }

    [Fact]
    public void A_year_without_letter_cites_all_that_look_alike() =>
        Assert.Equal(
            [
                [1, 2],
            ],
            Read(["Bats do so too (Cattrick, 2010)."], ByNames).Entries
        );

    [Fact]
    public void Numbers_in_brackets_cite_where_the_list_is_numbered()
    {
        var entries = Enumerable.Range(1, 12).Select(i => $"Arvesund A. Title {i}. Ledger. 20{i:00};1:1.").ToArray();
        var (sentences, cited) = Read(
            [
                "Moths gather at lamps [1, 3–5]. Bats follow them.[7] The estimate was 4 (95 % CI [2, 9]).",
                "Toads wait [12]; nobody asked them [13].",
            ],
            entries,
            isNumbered: true
        );
        Assert.Equal(
            [
                [0, 2, 3, 4],
                [6],
                [11],
            ],
            cited
        );
        Assert.Equal("1: Bats follow them.[7]", sentences[1]);
        // The same text over a list without numbers cites nothing.
        Assert.Empty(Read(["Moths gather at lamps [1, 3–5]."], entries).Entries);
    }

    [Fact]
    public void What_stands_near_is_the_sentence_before_and_the_one_behind()
    {
        var lines = new[] { "First. Second (Arvesund & Bellmoor, 2004). Third. Fourth." }
            .Select((t, i) => new ReadLine(new(t, 1, 50, 500, 700 - i, 10, false), 0))
            .ToArray();
        var found = Assert.Single(CitingSentences.In(lines, new(ByNames, [], false)));
        Assert.Equal("First. Second (Arvesund & Bellmoor, 2004). Third.", found.Near);
    }

    [Fact]
    public void A_text_of_nothing_but_years_is_read_in_no_time()
    {
        var years = string.Join(' ', Enumerable.Repeat("(Cattrick 2010; 2015)", 20_000));
        Assert.NotEmpty(Read([years], ByNames).Sentences);
    }
}
