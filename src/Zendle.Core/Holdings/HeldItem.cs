using Zendle.Core.Merging;
using Zendle.Core.Records;

namespace Zendle.Core.Holdings;

/// <summary>What lines of holdings ask of a work.</summary>
/// <param name="Keys">Its ISSNs and ISBNs over all records; see <see cref="HoldingKey"/>.</param>
/// <param name="Date">When it appeared, as far as it is told; null when not said.</param>
/// <param name="Volume">Its volume; null when not told, or no number.</param>
/// <param name="Issue">Its issue; null when not told, or no number.</param>
public sealed record HeldItem(IReadOnlyList<long> Keys, PartialDate? Date, int? Volume = null, int? Issue = null)
{
    /// <summary>What is asked of a work.</summary>
    /// <param name="records">Its records.</param>
    /// <param name="chosen">What was chosen from them.</param>
    public static HeldItem Of(IEnumerable<SourcedRecord> records, ChosenFields chosen) =>
        new(
            [
                .. records
                    .SelectMany(r =>
                        new[]
                        {
                            r.Record.Venue?.Issn is { } issn ? HoldingKey.OfIssn(issn) : 0,
                            r.Record.Isbn is { } isbn ? HoldingKey.OfIsbn(isbn) : 0,
                        }
                    )
                    .Where(k => k != 0)
                    .Distinct(),
            ],
            PartialDate.Read(chosen.Date) ?? (chosen.Year.Value is { } year ? new PartialDate(year) : null),
            CoverageEdge.Number(chosen.Venue.Value?.Volume),
            CoverageEdge.Number(chosen.Venue.Value?.Issue)
        );
}
