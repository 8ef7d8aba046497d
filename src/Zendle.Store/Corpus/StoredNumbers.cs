using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.People;

namespace Zendle.Store.Corpus;

/// <summary>
/// Numbers and labels of people, looked up one by one as they lie in the store: for the few that a change asks about. Whoever
/// numbers keeps what is given meanwhile. Not for several threads at once.
/// </summary>
public sealed class StoredNumbers : INumbersGiven, IDisposable
{
    private readonly CorpusContext context;
    private readonly SqlSession sql;

    private StoredNumbers(CorpusContext context, SqliteConnection connection)
    {
        (this.context, sql) = (context, new(connection, null));
        Last = sql.Number(
            """
            SELECT MAX((SELECT COALESCE(MAX(Id), 0) FROM People),
                (SELECT COALESCE(MAX(PersonId), 0) FROM PersonLabels), (SELECT COALESCE(MAX(PersonId), 0) FROM PersonMarks))
            """
        );
    }

    /// <summary>Opens the store for looking up.</summary>
    internal static async Task<StoredNumbers> Open(CorpusContext context, CancellationToken cancel)
    {
        await context.Database.OpenConnectionAsync(cancel);
        return new(context, (SqliteConnection)context.Database.GetDbConnection());
    }

    /// <inheritdoc/>
    public int Last { get; }

    /// <inheritdoc/>
    public int PersonOf(PersonMark mark) =>
        sql.Number("SELECT PersonId FROM PersonMarks WHERE WorkId = $0 AND Name = $1", mark.WorkId, mark.Name);

    /// <inheritdoc/>
    public int PersonOf(string label) => sql.Number("SELECT PersonId FROM PersonLabels WHERE Label = $0", label);

    /// <inheritdoc/>
    public string? Shown(int person) => sql.Scalar("SELECT Label FROM People WHERE Id = $0", person) as string;

    /// <inheritdoc/>
    public int Into(int person) => sql.Number("SELECT COALESCE(RedirectTo, 0) FROM People WHERE Id = $0", person);

    /// <inheritdoc/>
    public void Dispose()
    {
        sql.Dispose();
        context.Dispose();
    }
}
