using System.Globalization;
using CsvHelper;
using Zendle.Connect.Harvest;
using Zendle.Store.Corpus;

namespace Zendle.Bench.Measure;

/// <summary>A record's address in a world: the database's key and the record's identifier there.</summary>
internal readonly record struct RecordAt(string Database, string Identifier);

/// <summary>Reads a world from disk: the databases' pages, and the truth beside them.</summary>
internal sealed class WorldFiles(string folder)
{
    /// <summary>The databases, the most trusted first.</summary>
    public IReadOnlyList<string> Databases { get; } =
    [
        .. new[] { "meridian", "lifeleaf", "select", "union", "harbour", "farnet" }.Where(d =>
            Directory.Exists(Path.Combine(folder, "databases", d))
        ),
    ];

    /// <summary>The pages of a database, as its service gave them.</summary>
    /// <param name="id">Its id in the store.</param>
    /// <param name="database">Its name in the world.</param>
    public IEnumerable<OaiPage<PreparedRecord>> Pages(int id, string database) =>
        Directory
            .EnumerateFiles(Path.Combine(folder, "databases", database), "0*.xml")
            .Order(StringComparer.Ordinal)
            .Select(file => PageFile.Read(id, file));

    /// <summary>Rows of a table of the truth, without its header.</summary>
    public IEnumerable<string[]> Truth(string table)
    {
        using var reader = new CsvReader(
            new StreamReader(Path.Combine(folder, "truth", table)),
            CultureInfo.InvariantCulture
        );
        reader.Read();
        while (reader.Read())
            yield return reader.Parser.Record!;
    }

    /// <summary>The work and version behind each record.</summary>
    public Dictionary<RecordAt, (int Work, string Version)> Records() =>
        Truth("records.csv")
            .ToDictionary(r => new RecordAt(r[0], r[1]), r => (int.Parse(r[2], CultureInfo.InvariantCulture), r[3]));
}
