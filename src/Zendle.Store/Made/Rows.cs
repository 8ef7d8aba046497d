using Microsoft.AspNetCore.Identity;
using Zendle.Core.Reviews;
using Zendle.Core.Reviews.Acts;
using Zendle.Core.Schedules;

namespace Zendle.Store.Made;

/// <summary>A person who can sign in.</summary>
public sealed class Account : IdentityUser
{
    /// <summary>Name others see.</summary>
    public string DisplayName { get; set; } = "";

    /// <summary>Whether the account may change databases and add accounts.</summary>
    public bool IsCurator { get; set; }
}

/// <summary>One literature review.</summary>
public sealed class Review
{
    /// <summary>Id.</summary>
    public int Id { get; set; }

    /// <summary>Title.</summary>
    public required string Title { get; set; }

    /// <summary>The question it asks.</summary>
    public string Question { get; set; } = "";

    /// <summary>Target band: fewest works.</summary>
    public int BandLow { get; set; } = TargetBand.Usual.Low;

    /// <summary>Target band: most works.</summary>
    public int BandHigh { get; set; } = TargetBand.Usual.High;

    /// <summary>What the reasons of neighbours weigh, as Core writes it; null for the usual weights.</summary>
    public string? NeighbourWeights { get; set; }

    /// <summary>When it was made, UTC.</summary>
    public DateTimeOffset CreatedAt { get; set; }
}

/// <summary>What a member may do in a review.</summary>
public enum Role
{
    /// <summary>Look at everything, change nothing.</summary>
    Reader,

    /// <summary>Search, decide, tag.</summary>
    Screener,

    /// <summary>All that, and change the review and its members.</summary>
    Owner,
}

/// <summary>An account's part in a review.</summary>
public sealed class Member
{
    /// <summary>The review.</summary>
    public int ReviewId { get; set; }

    /// <summary>The account.</summary>
    public required string AccountId { get; set; }

    /// <summary>What it may do.</summary>
    public Role Role { get; set; }
}

/// <summary>One step of a review's paths.</summary>
public sealed class StepRow
{
    /// <summary>Id.</summary>
    public int Id { get; set; }

    /// <summary>The review.</summary>
    public int ReviewId { get; set; }

    /// <summary>The step before it; null for a first step.</summary>
    public int? ParentId { get; set; }

    /// <summary>The act, as <see cref="StoredActs"/> writes it.</summary>
    public required string Act { get; set; }

    /// <summary>What the act changed, in a few words.</summary>
    public required string Label { get; set; }

    /// <summary>A name given by a person; null for none.</summary>
    public string? Name { get; set; }

    /// <summary>How many works were in view after it, when it was taken.</summary>
    public int Count { get; set; }

    /// <summary>Corpus generation of that count.</summary>
    public long Generation { get; set; }

    /// <summary>Who took it.</summary>
    public required string AccountId { get; set; }

    /// <summary>When, UTC.</summary>
    public DateTimeOffset At { get; set; }

    /// <summary>Taken out of the path by a person.</summary>
    public bool Removed { get; set; }
}

/// <summary>Where an account last was in a review.</summary>
public sealed class PlaceRow
{
    /// <summary>The review.</summary>
    public int ReviewId { get; set; }

    /// <summary>The account.</summary>
    public required string AccountId { get; set; }

    /// <summary>The step of a search that was last in view; 0 for none.</summary>
    public int StepId { get; set; }

    /// <summary>The step of a trail that was last in view; 0 for none.</summary>
    public int TrailStepId { get; set; }
}

/// <summary>One decision event; see <see cref="DecisionEvent"/>. Rows are only ever added.</summary>
public sealed class DecisionRow
{
    /// <summary>Sequence.</summary>
    public long Id { get; set; }

    /// <summary>The review.</summary>
    public int ReviewId { get; set; }

    /// <summary>The act it was part of.</summary>
    public Guid Batch { get; set; }

    /// <summary>The work.</summary>
    public int WorkId { get; set; }

    /// <summary>The record it was made on.</summary>
    public int RecordId { get; set; }

    /// <summary>What was done.</summary>
    public DecisionAct Act { get; set; }

    /// <summary>Reason or tag.</summary>
    public string? Value { get; set; }

    /// <summary>Who.</summary>
    public required string AccountId { get; set; }

    /// <summary>When, UTC.</summary>
    public DateTimeOffset At { get; set; }

    /// <summary>The batch it takes back.</summary>
    public Guid? Undoes { get; set; }
}

/// <summary>
/// One committed run of a search, as the log keeps it. Rows are only ever added; only <see cref="OfRecord"/> changes.
/// </summary>
public sealed class RunRow
{
    /// <summary>Id.</summary>
    public int Id { get; set; }

    /// <summary>The review.</summary>
    public int ReviewId { get; set; }

    /// <summary>The step it was taken with.</summary>
    public int StepId { get; set; }

    /// <summary>The run it repeats; null for a first run.</summary>
    public int? Repeats { get; set; }

    /// <summary>The whole question: the acts that lead to it, as <see cref="StoredActs"/> writes them.</summary>
    public required string State { get; set; }

    /// <summary>Records and works by database, as JSON.</summary>
    public required string Ledger { get; set; }

    /// <summary>Works in view.</summary>
    public int Count { get; set; }

    /// <summary>Ids of those works, ascending, as packed 32-bit numbers.</summary>
    public required byte[] Works { get; set; }

    /// <summary>Corpus generation.</summary>
    public long Generation { get; set; }

    /// <summary>Who.</summary>
    public required string AccountId { get; set; }

    /// <summary>When, UTC.</summary>
    public DateTimeOffset At { get; set; }

    /// <summary>Whether it counts in the report; else it is exploration.</summary>
    public bool OfRecord { get; set; }
}

/// <summary>States of long work.</summary>
public enum JobState
{
    /// <summary>Waits its turn.</summary>
    Waiting,

    /// <summary>At work; after a kill, to be gone on with.</summary>
    Running,

    /// <summary>Done.</summary>
    Done,

    /// <summary>Ended with a fault; can be resumed.</summary>
    Failed,

    /// <summary>Stopped by a person; can be resumed.</summary>
    Stopped,
}

/// <summary>Long work that outlives requests and restarts.</summary>
public sealed class JobRow
{
    /// <summary>Id.</summary>
    public int Id { get; set; }

    /// <summary>What kind of work: "harvest", "gather".</summary>
    public required string Kind { get; set; }

    /// <summary>What it works on: a database id for a harvest, a review id for gathering.</summary>
    public int Subject { get; set; }

    /// <summary>State.</summary>
    public JobState State { get; set; }

    /// <summary>Units done.</summary>
    public int Done { get; set; }

    /// <summary>Units in all; null when not known.</summary>
    public int? Total { get; set; }

    /// <summary>New or changed records among them.</summary>
    public int Changed { get; set; }

    /// <summary>
    /// How often a process has begun to take in what comes next, since the job last made progress: more than once when
    /// processes ended in it.
    /// </summary>
    public int Begun { get; set; }

    /// <summary>What is going on or went wrong, in a sentence.</summary>
    public string Message { get; set; } = "";

    /// <summary>What has to be told one by one, as JSON: records that could not be read; empty for nothing.</summary>
    public string Report { get; set; } = "";

    /// <summary>When it was asked for, UTC.</summary>
    public DateTimeOffset CreatedAt { get; set; }

    /// <summary>When it ended, UTC; null before.</summary>
    public DateTimeOffset? EndedAt { get; set; }
}

/// <summary>Work that is done by itself, again and again: a job of one kind on one subject.</summary>
public sealed class ScheduleRow
{
    /// <summary>Kind of the job.</summary>
    public required string Kind { get; set; }

    /// <summary>What it works on, as in <see cref="JobRow.Subject"/>.</summary>
    public int Subject { get; set; }

    /// <summary>How often.</summary>
    public Recurrence Every { get; set; }

    /// <summary>When it is due next, UTC, by the clock that the installation follows.</summary>
    public DateTimeOffset DueAt { get; set; }
}

/// <summary>A term that a review does not want offered.</summary>
public sealed class RefusedTermRow
{
    /// <summary>The review.</summary>
    public int ReviewId { get; set; }

    /// <summary>The term: its words, folded, with blanks between them.</summary>
    public required string Text { get; set; }

    /// <summary>Who refused it.</summary>
    public required string AccountId { get; set; }

    /// <summary>When, UTC.</summary>
    public DateTimeOffset At { get; set; }
}

/// <summary>A round of a review: trails of kept works followed, and what they led to at that moment.</summary>
public sealed class RoundRow
{
    /// <summary>Id.</summary>
    public int Id { get; set; }

    /// <summary>The review.</summary>
    public int ReviewId { get; set; }

    /// <summary>Which round it is, from 1.</summary>
    public int Number { get; set; }

    /// <summary>The step whose set the candidates are; its act tells the seeds.</summary>
    public int StepId { get; set; }

    /// <summary>Works that trails and neighbours led to, looked at before or not.</summary>
    public int Found { get; set; }

    /// <summary>Candidates: those not looked at before.</summary>
    public int New { get; set; }

    /// <summary>Who began it.</summary>
    public required string AccountId { get; set; }

    /// <summary>When, UTC.</summary>
    public DateTimeOffset At { get; set; }
}

/// <summary>
/// The works among which the topics of a set were found last, where that was not when its step was taken: topics stay while
/// the set changes a little.
/// </summary>
public sealed class TopicsRow
{
    /// <summary>The step whose set it is.</summary>
    public int StepId { get; set; }

    /// <summary>Ids of the works, as <see cref="WorkIds"/> packs them.</summary>
    public required byte[] Works { get; set; }

    /// <summary>When, UTC.</summary>
    public DateTimeOffset At { get; set; }
}

/// <summary>A map under a name: a set, how it is looked at, and the works that were on it.</summary>
public sealed class MapRow
{
    /// <summary>Id.</summary>
    public int Id { get; set; }

    /// <summary>The review.</summary>
    public int ReviewId { get; set; }

    /// <summary>Its name.</summary>
    public required string Name { get; set; }

    /// <summary>The step whose set it shows.</summary>
    public int StepId { get; set; }

    /// <summary>How it is looked at, as JSON of <see cref="Core.Maps.MapLook"/>.</summary>
    public required string Look { get; set; }

    /// <summary>Ids of the works that were on it when it was saved, as <see cref="WorkIds"/> packs them.</summary>
    public required byte[] Works { get; set; }

    /// <summary>Who saved it last.</summary>
    public required string AccountId { get; set; }

    /// <summary>When it was saved last, UTC.</summary>
    public DateTimeOffset At { get; set; }

    /// <summary>Whether it was removed.</summary>
    public bool IsRemoved { get; set; }
}

/// <summary>A work that a person looked at in a round, whatever was decided.</summary>
public sealed class LookedRow
{
    /// <summary>The review.</summary>
    public int ReviewId { get; set; }

    /// <summary>Who.</summary>
    public required string AccountId { get; set; }

    /// <summary>The work.</summary>
    public int WorkId { get; set; }

    /// <summary>When first, UTC.</summary>
    public DateTimeOffset At { get; set; }
}

/// <summary>The key under which a review cites a work; it stays that work's as long as the review lasts.</summary>
public sealed class CitationKeyRow
{
    /// <summary>The review.</summary>
    public int ReviewId { get; set; }

    /// <summary>The key.</summary>
    public required string Key { get; set; }

    /// <summary>The work, under the number it had then.</summary>
    public int WorkId { get; set; }
}

/// <summary>One sign-in on one device. A cookie counts as long as its session is here.</summary>
public sealed class SessionRow
{
    /// <summary>SHA-256 of the secret that the cookie carries, in hexadecimal digits.</summary>
    public required string Id { get; set; }

    /// <summary>Who is signed in.</summary>
    public required string AccountId { get; set; }

    /// <summary>When it began, UTC.</summary>
    public DateTimeOffset At { get; set; }

    /// <summary>When it ends by itself, UTC.</summary>
    public DateTimeOffset Until { get; set; }
}

/// <summary>
/// What a number of a work or record in this file stands for, so that it can be found again in another
/// <c>corpus.db</c>. One row for each record that something was decided on.
/// </summary>
public sealed class MadeOnRow
{
    /// <summary>The record's number.</summary>
    public int RecordId { get; set; }

    /// <summary>The work it was in.</summary>
    public int WorkId { get; set; }

    /// <summary>Address of its database.</summary>
    public required string Address { get; set; }

    /// <summary>The database's set; empty for all.</summary>
    public required string SetName { get; set; }

    /// <summary>Its identifier there.</summary>
    public required string Identifier { get; set; }

    /// <summary>DOI of the work, folded; null for none.</summary>
    public string? Doi { get; set; }

    /// <summary>Key of the title and first person; 0 for none.</summary>
    public long TitleKey { get; set; }

    /// <summary>The title, for people.</summary>
    public required string Title { get; set; }

    /// <summary>First people, for people.</summary>
    public required string People { get; set; }

    /// <summary>Year; null when unknown.</summary>
    public int? Year { get; set; }
}

/// <summary>
/// A database that this installation has known, so that it has its number again when <c>corpus.db</c> is made anew.
/// </summary>
public sealed class KnownDatabaseRow
{
    /// <summary>Its number.</summary>
    public int Id { get; set; }

    /// <summary>Its address.</summary>
    public required string Address { get; set; }

    /// <summary>Its set; empty for all.</summary>
    public required string SetName { get; set; }

    /// <summary>Its name.</summary>
    public required string Name { get; set; }
}

/// <summary>
/// A custom entry: a work that no database has, as people typed it. The record in <c>corpus.db</c> is made of it, and
/// made again whenever that file is.
/// </summary>
public sealed class EntryRow
{
    /// <summary>Number; never used again.</summary>
    public int Id { get; set; }

    /// <summary>What was typed, as JSON of <see cref="Core.Entries.EntryFields"/>.</summary>
    public required string Fields { get; set; }

    /// <summary>Who added it.</summary>
    public required string AccountId { get; set; }

    /// <summary>When it was added, UTC.</summary>
    public DateTimeOffset At { get; set; }

    /// <summary>When it was last changed, removed or brought back, UTC.</summary>
    public DateTimeOffset ChangedAt { get; set; }

    /// <summary>Whether it was removed.</summary>
    public bool IsRemoved { get; set; }
}

/// <summary>
/// What a person said a reference means: it holds for every work that prints it. The newest one of a name holds.
/// </summary>
public sealed class ResolutionRow
{
    /// <summary>Number; higher is newer.</summary>
    public int Id { get; set; }

    /// <summary>
    /// The names the reference is known by (<see cref="Core.Merging.ReferenceKeys.Names"/>), eight bytes each,
    /// little-endian.
    /// </summary>
    public byte[] Names { get; set; } = [];

    /// <summary>The reference as printed.</summary>
    public required string Text { get; set; }

    /// <summary>The work it means, under the number it had then.</summary>
    public int WorkId { get; set; }

    /// <summary>Who said so.</summary>
    public required string AccountId { get; set; }

    /// <summary>When, UTC.</summary>
    public DateTimeOffset At { get; set; }

    /// <summary>Whether it was taken back.</summary>
    public bool IsUndone { get; set; }
}

/// <summary>A setting of the installation.</summary>
public sealed class SettingRow
{
    /// <summary>Name.</summary>
    public required string Name { get; set; }

    /// <summary>Value.</summary>
    public required string Value { get; set; }
}
