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
        var seasons = Math.Clamp(study.Years, 3, 6);
        var rows = Enumerable
            .Range(0, seasons)
            .Select(i =>
            {
                var without = Math.Max(20, study.Samples / seasons) + dice.Between(0, 40);
                var effect = 1 + study.Direction * study.Effect / 100.0 * (0.85 + 0.3 * dice.Unit());
                return new SeasonCount(
                    (work.Year - 1 - seasons + i).ToString(CultureInfo.InvariantCulture),
                    without,
                    Math.Max(1, (int)Math.Round(without * effect))
                );
            })
            .ToArray();
        if (look == Look.Preprint)
            rows = [rows[0] with { With = rows[0].With + 3 + rows[0].With / 12 }, .. rows[1..^1]];
        return work.Topic.Core ? new("dark", "lit", rows) : new("without", "with", rows);
    }

    /// <summary>What the counts come to, in a sentence.</summary>
    public string Sentence(Study study)
    {
        var (without, with) = (Rows.Sum(r => r.Without), Rows.Sum(r => r.With));
        var change = 100.0 * (with - without) / without;
        return string.Create(
            CultureInfo.InvariantCulture,
            $"Over {Rows.Count} seasons we counted {without:N0} {study.Things} "
                + $"{(Without == "dark" ? "at dark" : "at control")} sites and {with:N0} "
                + $"{(With == "lit" ? "at lit ones" : $"where {study.Factor} acted")}: "
                + $"{(Math.Abs(change) < 1 ? "no difference to speak of" : $"{Math.Abs(change):0.0} % {(change < 0 ? "fewer" : "more")}")}."
        );
    }
}
