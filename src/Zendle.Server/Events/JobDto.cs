using Zendle.Connect.Harvest;
using Zendle.Store.Made;

namespace Zendle.Server.Events;

/// <summary>How a job stands.</summary>
/// <param name="SkippedCount">How many records of a harvest could not be read.</param>
/// <param name="Skipped">The first of them.</param>
internal sealed record JobDto(
    int Id,
    string Kind,
    int Subject,
    JobState State,
    int Done,
    int? Total,
    int Changed,
    string Message,
    int SkippedCount,
    IReadOnlyList<SkippedRecord> Skipped,
    DateTimeOffset CreatedAt,
    DateTimeOffset? EndedAt
)
{
    public static JobDto Of(JobRow j)
    {
        var report = HarvestReport.Of(j.Report);
        return new(
            j.Id,
            j.Kind,
            j.Subject,
            j.State,
            j.Done,
            j.Total,
            j.Changed,
            j.Message,
            report.SkippedCount,
            report.Skipped,
            j.CreatedAt,
            j.EndedAt
        );
    }
}
