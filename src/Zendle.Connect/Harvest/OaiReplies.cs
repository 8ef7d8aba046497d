using System.Xml.Linq;

namespace Zendle.Connect.Harvest;

/// <summary>What a service says of itself (OAI-PMH 2.0, section 4.2).</summary>
/// <param name="Name">repositoryName.</param>
/// <param name="Description">Text of a description container; empty when there is none.</param>
/// <param name="Granularity">"YYYY-MM-DD" or "YYYY-MM-DDThh:mm:ssZ".</param>
/// <param name="Earliest">earliestDatestamp as written.</param>
/// <param name="DeletedRecord">no, transient or persistent.</param>
public sealed record OaiIdentity(
    string Name,
    string Description,
    string Granularity,
    string Earliest,
    string DeletedRecord
);

/// <summary>A metadata format on offer.</summary>
/// <param name="Prefix">metadataPrefix.</param>
/// <param name="Namespace">Its XML namespace.</param>
public sealed record OaiFormat(string Prefix, string Namespace);

/// <summary>A set on offer.</summary>
/// <param name="Spec">setSpec.</param>
/// <param name="Name">setName.</param>
public sealed record OaiSet(string Spec, string Name);

/// <summary>One record of a list.</summary>
/// <param name="Identifier">Its identifier.</param>
/// <param name="Datestamp">Its datestamp.</param>
/// <param name="Metadata">The element inside metadata; null when deleted.</param>
/// <param name="Mended">In how many places it was no valid XML and had to be mended.</param>
public sealed record OaiRecord(string Identifier, DateTimeOffset Datestamp, XElement? Metadata, int Mended = 0);

/// <summary>One page of a list.</summary>
/// <typeparam name="T">What is made of a record.</typeparam>
/// <param name="Records">Its records.</param>
/// <param name="Token">Token of the next page; null when the list is complete.</param>
/// <param name="Total">completeListSize, when said.</param>
/// <param name="ResponseDate">responseDate of the reply.</param>
/// <param name="Skipped">Records that it held and that could not be read.</param>
/// <param name="Mended">How many of its records were no valid XML and had to be mended.</param>
public sealed record OaiPage<T>(
    IReadOnlyList<T> Records,
    string? Token,
    int? Total,
    DateTimeOffset ResponseDate,
    IReadOnlyList<SkippedRecord> Skipped,
    int Mended = 0
);

/// <summary>What is wrong with a service or its reply, in a sentence for the person who waits for it.</summary>
public class HarvestFaultException : Exception
{
    /// <summary>Makes a fault.</summary>
    /// <param name="sentence">What is wrong, and what is safe.</param>
    /// <param name="code">The protocol's error code; null for other faults.</param>
    /// <param name="inner">The cause.</param>
    public HarvestFaultException(string sentence, string? code = null, Exception? inner = null)
        : base(sentence, inner) => Code = code;

    /// <summary>Error code of OAI-PMH 2.0, section 3.6; null for other faults.</summary>
    public string? Code { get; }
}
