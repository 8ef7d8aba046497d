using System.Xml.Linq;

namespace Zendle.Core.Loans;

/// <summary>
/// Names of ISO 18626:2021 (Information and documentation — Interlibrary loan transactions), schema version 1.2.
/// </summary>
internal static class Iso18626
{
    /// <summary>The namespace of all its elements.</summary>
    public static readonly XNamespace Names = "http://illtransactions.org/2013/iso18626";

    /// <summary>The version that messages name.</summary>
    public const string Version = "1.2";

    /// <summary>Root of every message.</summary>
    public const string Root = "ISO18626Message";

    /// <summary>Kind of the identifiers of libraries that are used here (ISO 15511).</summary>
    public const string Isil = "ISIL";

    /// <summary>A supplier's status as the standard spells it; null for one that is none of its own.</summary>
    public static LoanStatus? StatusOf(string code) =>
        Enum.TryParse<LoanStatus>(code, ignoreCase: true, out var status)
        && Enum.IsDefined(status)
        && !char.IsDigit(code[0])
        && status is not (LoanStatus.Unsent or LoanStatus.Sent or LoanStatus.Refused)
            ? status
            : null;
}
