namespace Zendle.Store.Corpus;

/// <summary>
/// Which corpus this file is: one row. Numbers in <c>zendle.db</c> are this corpus's; one that is made anew goes on
/// behind the numbers that were given before, so that none ever stands for another thing.
/// </summary>
public sealed class CorpusRow
{
    /// <summary>Always 1.</summary>
    public int Id { get; set; }

    /// <summary>Which corpus it is, made up once.</summary>
    public required string Identity { get; set; }

    /// <summary>Numbers of records begin above this.</summary>
    public int RecordFloor { get; set; }

    /// <summary>Numbers of works begin above this.</summary>
    public int WorkFloor { get; set; }

    /// <summary>Change sequences begin above this.</summary>
    public long SequenceFloor { get; set; }
}

/// <summary>A database whose records are copied.</summary>
public sealed class DatabaseRow
{
    /// <summary>Most databases and other sources of citations: the citation graph tells no more apart.</summary>
    public const int Most = 62;

    /// <summary>What addresses begin with that are nobody's to harvest, but Zendle's own.</summary>
    public const string Own = "zendle:";

    /// <summary>The address of the database of custom entries, which nobody harvests.</summary>
    public const string OfEntries = Own + "entries";

    /// <summary>Whether it holds custom entries rather than the records of a service.</summary>
    public bool IsOfEntries => Address == OfEntries;

    /// <summary>Id, 1–255.</summary>
    public int Id { get; set; }

    /// <summary>Name, as the database gives it.</summary>
    public required string Name { get; set; }

    /// <summary>What it says of itself.</summary>
    public string Description { get; set; } = "";

    /// <summary>Base address of its OAI-PMH service; <see cref="OfEntries"/> for custom entries.</summary>
    public required string Address { get; set; }

    /// <summary>Metadata format that is asked for.</summary>
    public required string Format { get; set; }

    /// <summary>Set that is asked for; null for all.</summary>
    public string? SetName { get; set; }

    /// <summary>Granularity of its datestamps: "YYYY-MM-DD" or "YYYY-MM-DDThh:mm:ssZ".</summary>
    public required string Granularity { get; set; }

    /// <summary>Rank of trust, 0 the most trusted; ties by id.</summary>
    public int Trust { get; set; }

    /// <summary>The database it is an extract of; null when it stands for itself.</summary>
    public int? PartOf { get; set; }

    /// <summary>
    /// Start of the next incremental harvest: first responseDate of the last complete run; null before one.
    /// </summary>
    public DateTimeOffset? HarvestedUntil { get; set; }

    /// <summary>When a harvest last came to its end, by our clock.</summary>
    public DateTimeOffset? HarvestedAt { get; set; }

    /// <summary>The run under way: its resumption token; null between runs.</summary>
    public string? Token { get; set; }

    /// <summary>The run under way: its first responseDate; null between runs.</summary>
    public DateTimeOffset? RunStarted { get; set; }

    /// <summary>The run under way: records taken so far.</summary>
    public int RunDone { get; set; }

    /// <summary>The run under way: records that were new or changed.</summary>
    public int RunChanged { get; set; }

    /// <summary>The run under way: whether it asks for everything, so that what does not come has vanished.</summary>
    public bool RunIsWhole { get; set; }

    /// <summary>
    /// How the service tells of deletions (OAI-PMH 2.0, section 2.5.1): no, transient or persistent; empty when it has
    /// not been asked.
    /// </summary>
    public string DeletedRecord { get; set; } = "";

    /// <summary>When everything was last asked for, by our clock; null when only what changed ever was.</summary>
    public DateTimeOffset? WholeAt { get; set; }

    /// <summary>Whether a curator wants everything to be asked for in the next run.</summary>
    public bool WholeAsked { get; set; }
}

/// <summary>The controlled vocabulary of a database, as it was fetched.</summary>
public sealed class VocabularyRow
{
    /// <summary>The database.</summary>
    public int DatabaseId { get; set; }

    /// <summary>Where it was fetched from.</summary>
    public required string Address { get; set; }

    /// <summary>When, by our clock.</summary>
    public DateTimeOffset FetchedAt { get; set; }

    /// <summary>How many concepts it has.</summary>
    public int Concepts { get; set; }

    /// <summary>The document (SKOS in RDF/XML), compressed.</summary>
    public byte[] Document { get; set; } = [];
}

/// <summary>A record that the whole run under way has brought.</summary>
public sealed class SeenRow
{
    /// <summary>The database.</summary>
    public int DatabaseId { get; set; }

    /// <summary>Identifier of the record there.</summary>
    public required string Identifier { get; set; }
}

/// <summary>A record as it is kept.</summary>
public sealed class RecordRow
{
    /// <summary>Id; lower is older. Never used again.</summary>
    public int Id { get; set; }

    /// <summary>Its database.</summary>
    public int DatabaseId { get; set; }

    /// <summary>Its identifier there.</summary>
    public required string Identifier { get; set; }

    /// <summary>Its datestamp there.</summary>
    public DateTimeOffset Datestamp { get; set; }

    /// <summary>Whether the database has deleted it.</summary>
    public bool Deleted { get; set; }

    /// <summary>
    /// The work it belongs to; 0 when deleted, unless it was the last record of a work that people had decided on: that
    /// keeps it, with its last values.
    /// </summary>
    public int WorkId { get; set; }

    /// <summary>Change sequence of its last change.</summary>
    public long Sequence { get; set; }

    /// <summary>The first day on which a copy of it becomes free; null for none.</summary>
    public DateOnly? OpensOn { get; set; }

    /// <summary>Key of title and first person, by which references find the record; 0 for none.</summary>
    public long TitleKey { get; set; }

    /// <summary>The record without its references, as UTF-8 JSON.</summary>
    public byte[] Facts { get; set; } = [];

    /// <summary>The references, as compressed JSON.</summary>
    public byte[] References { get; set; } = [];

    /// <summary>Two 64-bit keys for each reference (DOI; title and person), packed.</summary>
    public byte[] ReferenceKeys { get; set; } = [];

    /// <summary>The original, compressed: XML, or the JSON of a custom entry's fields.</summary>
    public byte[] Source { get; set; } = [];
}

/// <summary>
/// What merging looks at in a record, beside it: records are compared far oftener than they are read. A deleted record
/// has none.
/// </summary>
public sealed class MergeFactsRow
{
    /// <summary>The record.</summary>
    public int RecordId { get; set; }

    /// <summary>Its database.</summary>
    public int DatabaseId { get; set; }

    /// <summary>Its facts: see <see cref="MergeFactsCodec"/>.</summary>
    public byte[] Facts { get; set; } = [];
}

/// <summary>A part of a sorted run of keys by which records find each other; see <see cref="KeyRuns"/>.</summary>
public sealed class KeyPartRow
{
    /// <summary>Id; the parts of a run follow each other.</summary>
    public int Id { get; set; }

    /// <summary>The run.</summary>
    public int Run { get; set; }

    /// <summary>How often what is in the run was merged.</summary>
    public int Level { get; set; }

    /// <summary>The first key of the part.</summary>
    public long First { get; set; }

    /// <summary>
    /// Entries in order of keys: eight bytes of the key and four of the record, little-endian; the record negative
    /// where it lost the key.
    /// </summary>
    public byte[] Keys { get; set; } = [];
}

/// <summary>A work. Its id is permanent.</summary>
public sealed class WorkRow
{
    /// <summary>Id.</summary>
    public int Id { get; set; }

    /// <summary>The work it went into; null while it stands by itself.</summary>
    public int? RedirectTo { get; set; }
}

/// <summary>A name of a reference that people said means a work; made again from <c>zendle.db</c>.</summary>
public sealed class ResolvedReferenceRow
{
    /// <summary>The name: see <see cref="Core.Merging.ReferenceKeys.Names"/>.</summary>
    public long Name { get; set; }

    /// <summary>The work, under the number it had then.</summary>
    public int WorkId { get; set; }
}

/// <summary>Where reference lists come from that no record has.</summary>
public sealed class TieSourceRow
{
    /// <summary>The address of the source that gathered texts are.</summary>
    public const string OfTexts = DatabaseRow.Own + "texts";

    /// <summary>What the addresses of tables of citations begin with.</summary>
    public const string OfTables = DatabaseRow.Own + "ties:";

    /// <summary>Id, 1–255; no database has it.</summary>
    public int Id { get; set; }

    /// <summary>Its address.</summary>
    public required string Address { get; set; }

    /// <summary>Its name.</summary>
    public required string Name { get; set; }

    /// <summary>Of a table: how many rows it has.</summary>
    public int Rows { get; set; }

    /// <summary>Of a table: how many of its rows could not be read.</summary>
    public int Unread { get; set; }

    /// <summary>When it came.</summary>
    public DateTimeOffset At { get; set; }

    /// <summary>Whether it is the source that gathered texts are.</summary>
    public bool IsOfTexts => Address == OfTexts;
}

/// <summary>
/// A list of references that no record has: read out of a gathered text, or what a table says one work cites. It has a
/// number among those of records, so that all that follows the lists of records follows it too.
/// </summary>
public sealed class AddedListRow
{
    /// <summary>Its number; no record has it.</summary>
    public int Id { get; set; }

    /// <summary>Its source; 0 for a list that was taken away.</summary>
    public int SourceId { get; set; }

    /// <summary>The work that cites, under the number it had then; 0 for one that is told by its DOI.</summary>
    public int WorkId { get; set; }

    /// <summary>Key of the DOI of the work that cites; 0 for one that is told by its number.</summary>
    public long Citing { get; set; }

    /// <summary>Change sequence of its last change.</summary>
    public long Sequence { get; set; }

    /// <summary>The references, as compressed JSON; empty for a list that was taken away, whose number may be given again.</summary>
    public byte[] References { get; set; } = [];

    /// <summary>The keys of the references, packed.</summary>
    public byte[] ReferenceKeys { get; set; } = [];
}

/// <summary>A person told apart from namesakes. The id is permanent.</summary>
public sealed class PersonRow
{
    /// <summary>Id.</summary>
    public int Id { get; set; }

    /// <summary>The label that is shown.</summary>
    public required string Label { get; set; }

    /// <summary>The person it went into; null while it stands by itself.</summary>
    public int? RedirectTo { get; set; }
}

/// <summary>A label under which a person was shown once; it never comes to mean somebody else.</summary>
public sealed class PersonLabelRow
{
    /// <summary>The label, told apart without regard to case.</summary>
    public required string Label { get; set; }

    /// <summary>The person it stands for.</summary>
    public int PersonId { get; set; }
}

/// <summary>A name on a work, with the person it was taken for last.</summary>
public sealed class PersonMarkRow
{
    /// <summary>The work.</summary>
    public int WorkId { get; set; }

    /// <summary>Hash of the family name and the first initial: <see cref="Core.People.PersonMark"/>.</summary>
    public int Name { get; set; }

    /// <summary>The person.</summary>
    public int PersonId { get; set; }
}

/// <summary>A pair of records that agree enough to be one work.</summary>
public sealed class MatchRow
{
    /// <summary>The older record.</summary>
    public int First { get; set; }

    /// <summary>The younger record.</summary>
    public int Second { get; set; }

    /// <summary>How they compare: <see cref="Core.Merging.Comparison.Packed"/>.</summary>
    public int Compared { get; set; }

    /// <summary>Sum of the log odds.</summary>
    public double Score { get; set; }
}

/// <summary>
/// What a curator decided about two records: one work, or never one. Rows are only added; the newest of a pair holds.
/// </summary>
public sealed class RulingRow
{
    /// <summary>Id; higher is newer.</summary>
    public int Id { get; set; }

    /// <summary>The older record.</summary>
    public int First { get; set; }

    /// <summary>The younger record.</summary>
    public int Second { get; set; }

    /// <summary>True: one work. False: never one. Null: taken back, the records decide again.</summary>
    public bool? Same { get; set; }

    /// <summary>The act it was part of: a split or a join rules several pairs at once.</summary>
    public Guid Act { get; set; }

    /// <summary>Who decided: the account's id.</summary>
    public required string By { get; set; }

    /// <summary>When.</summary>
    public DateTimeOffset At { get; set; }
}
