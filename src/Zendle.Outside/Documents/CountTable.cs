using System.Globalization;
using Zendle.Outside.World;

namespace Zendle.Outside.Documents;

/// <summary>One season's counts.</summary>
/// <param name="Season">The season.</param>
/// <param name="Without">Counted where the factor did not act.</param>
/// <param name="With">Counted where it did.</param>
public sealed record SeasonCount(string Season, int Without, int With);

/// <summary>
/// The counts a work reports. They belong to the study, so works that report one study report the same; a preprint was
/// written before the last season and before the first was counted again, so its numbers are others than those of the
/// versions after it.
/// </summary>
/// <param name="Without">What the first column is called.</param>
/// <param name="With">What the second is called.</param>
/// <param name="Rows">The seasons, oldest first.</param>
public sealed record CountTable(string Without, string With, IReadOnlyList<SeasonCount> Rows)
{
    /// <summary>The counts of a work in one of its looks.</summary>
    public static CountTable Of(Work work, Look look)
    {
        var study = work.Study;
        var dice = new Dice(9).For("counts", study.Id);
        var figures = study.Figures;
        var seasons = Math.Min(figures.Years, MostSeasons);
        // Hundreds, so that the effect is a whole number of counts and the columns add up to it.
        var without = 100 * Math.Max(2, (int)Math.Round(figures.Samples / 60.0));
        var with = without + without * study.Direction * study.Effect / 100;
        var (a, b) = (Shared(without, seasons, dice), Shared(with, seasons, dice));
        var rows = Enumerable
            .Range(0, seasons)
            .Select(i => new SeasonCount(
                (figures.To - seasons + 1 + i).ToString(CultureInfo.InvariantCulture),
                a[i],
                b[i]
            ))
            .ToArray();
        if (look == Look.Preprint && rows.Length > 1)
            rows = [rows[0] with { With = rows[0].With + 3 + rows[0].With / 12 }, .. rows[1..^1]];
        return work.Topic is { Core: true, Kind: "field" } ? new("dark", "lit", rows) : new("without", "with", rows);
    }

    private const int MostSeasons = 6;

    /// <summary>A total in parts, none of them empty.</summary>
    private static int[] Shared(int total, int parts, Dice dice)
    {
        var weights = Enumerable.Range(0, parts).Select(_ => 0.6 + 0.8 * dice.Unit()).ToArray();
        var sum = weights.Sum();
        var shares = weights.Select(w => Math.Max(1, (int)(total * w / sum))).ToArray();
        shares[0] += total - shares.Sum();
        return shares;
    }

    /// <summary>
    /// What the counts come to, in a sentence. Before the last season was counted nothing is reckoned from them.
    /// </summary>
    public string Sentence(Study study, Look look)
    {
        var (without, with) = (Rows.Sum(r => r.Without), Rows.Sum(r => r.With));
        var (things, rounds) = study.Design switch
        {
            "field" => ($"{study.Things} were counted", "seasons"),
            "lab" => ($"responses of {study.Things} were counted", "runs"),
            "observe" => ($"readings of {study.Response} were counted", "years"),
            "people" => ($"cases of altered {study.Response} were counted", "waves"),
            "society" => ($"mentions of {study.Response} were counted", "years"),
            "synthesis" => ("comparisons were counted", "years"),
            _ => ($"test readings of {study.Things} were counted", "series"),
        };
        var (at, other) = (
            Without == "dark" ? "at dark sites" : "without it",
            With == "lit" ? "at lit ones" : $"with {study.Factor}"
        );
        var change =
            look == Look.Preprint ? ""
            : without == with ? ": no difference"
            : string.Create(
                CultureInfo.InvariantCulture,
                $": {100 * Math.Abs(with - without) / without} % {(with < without ? "fewer" : "more")}"
            );
        return string.Create(
            CultureInfo.InvariantCulture,
            $"Over {Rows.Count} {rounds}, {without} {things} {at} and {with} {other}{change}."
        );
    }
}
