using Zendle.Core.Entries;

namespace Zendle.Server.Features.Search;

/// <summary>Whether the work that a pasted reference means is here.</summary>
internal enum PastedVerdict
{
    /// <summary>It is, beyond reasonable doubt.</summary>
    Sure,

    /// <summary>Some works may be it; a person chooses.</summary>
    ToConfirm,

    /// <summary>No database here holds it.</summary>
    NotHere,
}

/// <summary>A work that a pasted reference means or may mean.</summary>
/// <param name="Likeness">How alike they are, in per cent; null where only an identifier, an address or a name with a year
/// was looked for, and nothing else compared.</param>
/// <param name="Why">How it was found, or what differs; each in a few words.</param>
internal sealed record PastedCandidateDto(
    int WorkId,
    string Title,
    string? Person,
    int? Year,
    string? Venue,
    int? Likeness,
    IReadOnlyList<string> Why
);

/// <summary>One entry of what was pasted.</summary>
/// <param name="Text">The reference, on one line.</param>
/// <param name="Verdict">Whether its work is here.</param>
/// <param name="Candidates">The works it means or may mean.</param>
/// <param name="Fields">What a file of references said of it, field by field; null where it was printed text.</param>
internal sealed record PastedReferenceDto(
    string Text,
    PastedVerdict Verdict,
    IReadOnlyList<PastedCandidateDto> Candidates,
    EntryFields? Fields = null
);

/// <summary>What was pasted, entry by entry.</summary>
/// <param name="IsCut">Whether there were more entries than are taken at once.</param>
/// <param name="NotLookedFor">How many of those not here were looked for by their keys alone, because many are.</param>
internal sealed record PastedDto(IReadOnlyList<PastedReferenceDto> References, bool IsCut, int NotLookedFor);
