using Microsoft.Data.Sqlite;
using Zendle.Core.Merging;
using Zendle.Core.Records;

namespace Zendle.Store.Corpus;

/// <summary>
/// A table of citations on its way into the corpus: a file of its own, in which the rows of one citing work come together
/// however they came. Memory does not grow with the table.
/// </summary>
public sealed class TieStaging : IDisposable
{
    private const int AtOnce = 2_000;
    private readonly SqliteConnection connection;

    private TieStaging(string path)
    {
        connection = new(new SqliteConnectionStringBuilder { DataSource = path, Pooling = false }.ToString());
        connection.Open();
        // The file can be made again from the table, and is thrown away after.
        Run("PRAGMA journal_mode = OFF; PRAGMA synchronous = OFF; PRAGMA temp_store = FILE");
        Run("CREATE TABLE IF NOT EXISTS Pairs (Citing TEXT NOT NULL, Cited TEXT NOT NULL)");
    }

    /// <summary>Opens the file at a path, or makes it.</summary>
    public static TieStaging Open(string path) => new(path);

    /// <summary>Puts pairs of DOIs in, citing and cited.</summary>
    /// <param name="pairs">The pairs; taken as they come.</param>
    /// <param name="cancel">Stops; nothing is in then.</param>
    /// <returns>How many.</returns>
    public int Put(IEnumerable<(string Citing, string Cited)> pairs, CancellationToken cancel)
    {
        using var transaction = connection.BeginTransaction();
        using var command = connection.CreateCommand();
        command.Transaction = transaction;
        command.CommandText = "INSERT INTO Pairs (Citing, Cited) VALUES ($citing, $cited)";
        var (citing, cited) = (
            command.Parameters.Add("$citing", SqliteType.Text),
            command.Parameters.Add("$cited", SqliteType.Text)
        );
        var count = 0;
        foreach (var pair in pairs)
        {
            cancel.ThrowIfCancellationRequested();
            (citing.Value, cited.Value) = (pair.Citing, pair.Cited);
            command.ExecuteNonQuery();
            count++;
        }
        transaction.Commit();
        return count;
    }

    /// <summary>The lists of the citing works, some thousand at once; what a work cites twice stands once.</summary>
    public IEnumerable<PreparedList[]> Lists()
    {
        var (open, cited) = (new List<(string, string[])>(), new List<string>());
        string? of = null;
        using var command = connection.CreateCommand();
        command.CommandText = "SELECT Citing, Cited FROM Pairs ORDER BY Citing, rowid";
        using var reader = command.ExecuteReader();
        while (reader.Read())
        {
            var citing = reader.GetString(0);
            if (of is not null && citing != of)
            {
                open.Add((of, [.. cited.Distinct()]));
                cited.Clear();
                if (open.Count == AtOnce)
                {
                    yield return Prepared(open);
                    open.Clear();
                }
            }
            of = citing;
            cited.Add(reader.GetString(1));
        }
        if (of is not null)
            open.Add((of, [.. cited.Distinct()]));
        if (open.Count > 0)
            yield return Prepared(open);
    }

    private static PreparedList[] Prepared(List<(string Citing, string[] Cited)> open) =>
        [
            .. open.AsParallel()
                .AsOrdered()
                .Select(o =>
                    PreparedList.By(MergeKeys.Doi(o.Citing), [.. o.Cited.Select(doi => new Reference(doi, doi))])
                ),
        ];

    private void Run(string sql)
    {
        using var command = connection.CreateCommand();
#pragma warning disable CA2100 // constants of this class
        command.CommandText = sql;
#pragma warning restore CA2100
        command.ExecuteNonQuery();
    }

    /// <inheritdoc/>
    public void Dispose() => connection.Dispose();
}
