namespace Zendle.Core.Records;

/// <summary>
/// The stages of a text's life, by the terms of NISO RP-8-2008 (Journal Article Versions) and its revision. The numbers
/// are written down in stores, so new terms go to the end; for the order of worth ask <see cref="WorkVersions.Rank"/>.
/// </summary>
public enum WorkVersion
{
    /// <summary>Submitted manuscript under review; a preprint when put out by its people.</summary>
    SubmittedManuscript,

    /// <summary>Accepted manuscript.</summary>
    AcceptedManuscript,

    /// <summary>Version of record.</summary>
    VersionOfRecord,

    /// <summary>Author's original, before it was submitted anywhere.</summary>
    AuthorsOriginal,

    /// <summary>Proof: typeset, not yet corrected.</summary>
    Proof,

    /// <summary>Corrected version of record.</summary>
    CorrectedVersionOfRecord,

    /// <summary>Enhanced version of record, with matter added to it.</summary>
    EnhancedVersionOfRecord,
}

/// <summary>Names of versions and what they are worth.</summary>
public static class WorkVersions
{
    private static readonly (WorkVersion Version, string Name)[] ByWorth =
    [
        (WorkVersion.EnhancedVersionOfRecord, "enhanced version of record"),
        (WorkVersion.CorrectedVersionOfRecord, "corrected version of record"),
        (WorkVersion.VersionOfRecord, "version of record"),
        (WorkVersion.Proof, "proof"),
        (WorkVersion.AcceptedManuscript, "accepted manuscript"),
        (WorkVersion.SubmittedManuscript, "submitted manuscript"),
        (WorkVersion.AuthorsOriginal, "author's original"),
    ];

    /// <summary>The name of a version; null when it is not known.</summary>
    public static string? Name(WorkVersion? version) =>
        version is { } v ? ByWorth.First(w => w.Version == v).Name : null;

    /// <summary>0 for the one worth most; a version that is not known stands last.</summary>
    public static int Rank(WorkVersion? version) =>
        version is { } v ? Array.FindIndex(ByWorth, w => w.Version == v) : ByWorth.Length;

    /// <summary>Whether a version is of record: what is cited and read in its place.</summary>
    public static bool IsOfRecord(WorkVersion? version) =>
        version
            is WorkVersion.VersionOfRecord
                or WorkVersion.CorrectedVersionOfRecord
                or WorkVersion.EnhancedVersionOfRecord;

    /// <summary>Whether a version came before peer review ended.</summary>
    public static bool IsBeforeReview(WorkVersion? version) =>
        version is WorkVersion.SubmittedManuscript or WorkVersion.AuthorsOriginal;

    /// <summary>
    /// Reads what databases write: the terms in words or shortened (VoR, AM …), those of
    /// <c>info:eu-repo/semantics</c>, and the concepts of the COAR version vocabulary (version 1) by their addresses.
    /// Null for words that name no version.
    /// </summary>
    public static WorkVersion? Read(string text)
    {
        var written = text.Trim();
        if (written.Length > 200)
            return null;
        // Of an address or a path the last part speaks.
        var isTerm =
            written.Contains("://", StringComparison.Ordinal) || written.StartsWith("info:", StringComparison.Ordinal);
        if (isTerm)
            written = written.TrimEnd('/')[(written.TrimEnd('/').LastIndexOf('/') + 1)..];
        return written.ToLowerInvariant().Replace('’', '\'') switch
        {
            "version of record" or "published version" or "publishedversion" or "vor" or "c_970fb48d4fbd8a85" =>
                WorkVersion.VersionOfRecord,
            "corrected version of record" or "updatedversion" or "cvor" or "c_dc82b40f9837b551" =>
                WorkVersion.CorrectedVersionOfRecord,
            "enhanced version of record" or "evor" or "c_e19f295774971610" => WorkVersion.EnhancedVersionOfRecord,
            "proof" or "c_fa2ee174bc00049f" => WorkVersion.Proof,
            "accepted manuscript"
            or "accepted version"
            or "acceptedversion"
            or "postprint"
            or "am"
            or "c_ab4af688f83e57aa" => WorkVersion.AcceptedManuscript,
            "submitted manuscript"
            or "submitted version"
            or "submitted manuscript under review"
            or "submittedversion"
            or "preprint"
            or "smur"
            or "c_71e4c1898caa6e32" => WorkVersion.SubmittedManuscript,
            "author's original" or "ao" or "c_b1a7d7d4d402bcce" => WorkVersion.AuthorsOriginal,
            // By itself the word says nothing; as a term of the vocabulary it does.
            "draft" when isTerm => WorkVersion.AuthorsOriginal,
            _ => null,
        };
    }
}
