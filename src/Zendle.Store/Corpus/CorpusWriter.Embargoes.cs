using System.Globalization;
using Zendle.Core.Records;

namespace Zendle.Store.Corpus;

/// <summary>Writes when copies become free.</summary>
public sealed partial class CorpusWriter
{
    /// <summary>Frees the copies whose embargo has ended. O(records that have one of those).</summary>
    /// <param name="today">The day it is.</param>
    /// <param name="cancel">Stops before anything is written.</param>
    /// <returns>The records with those copies; they count as changed.</returns>
    public Task<PageResult> OpenCopies(DateOnly today, CancellationToken cancel) =>
        InTransaction(
            sql =>
            {
                var due = new List<(int Id, Record Record)>();
                using (
                    var reader = sql.Query(
                        "SELECT Id, Facts FROM Records WHERE OpensOn <= $0 AND Deleted = 0",
                        Day(today)
                    )
                )
                    while (reader.Read())
                        due.Add((reader.GetInt32(0), RecordCodec.Facts(reader.GetFieldValue<byte[]>(1))));
                var sequence = NextSequence(sql);
                var changed = new List<(int Id, Record? Record)>(due.Count);
                foreach (var (id, record) in due)
                {
                    var open = record.On(today);
                    sql.Run(
                        "UPDATE Records SET Facts = $1, OpensOn = $2, Sequence = $3 WHERE Id = $0",
                        id,
                        RecordCodec.Facts(open),
                        Day(open.OpensOn),
                        sequence
                    );
                    changed.Add((id, open));
                }
                return new PageResult(changed.Count > 0 ? sequence : sequence - 1, changed);
            },
            cancel
        );

    private static string? Day(DateOnly? day) => day?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
}
