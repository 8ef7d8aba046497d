namespace Zendle.Documents;

/// <summary>A file that is no readable document; the message is a sentence for a person.</summary>
/// <param name="fault">What is wrong with it.</param>
/// <param name="sentence">The sentence.</param>
/// <param name="inner">What the engine said.</param>
/// <param name="pages">How many pages it has, where that is known; 0 where not.</param>
public sealed class DocumentFaultException(DocumentFault fault, string sentence, Exception? inner = null, int pages = 0)
    : Exception(sentence, inner)
{
    /// <summary>How many pages it has; 0 where that is not known.</summary>
    public int Pages { get; } = pages;

    /// <summary>What is wrong with it.</summary>
    public DocumentFault Fault { get; } = fault;
}

/// <summary>What can be wrong with a document.</summary>
public enum DocumentFault
{
    /// <summary>Nothing in it.</summary>
    Empty,

    /// <summary>It is of no format that is taken.</summary>
    NotADocument,

    /// <summary>It is cut off or broken.</summary>
    Damaged,

    /// <summary>It asks for a password.</summary>
    Encrypted,

    /// <summary>It holds no letters.</summary>
    NoLetters,

    /// <summary>It carries a script.</summary>
    Scripted,

    /// <summary>It has more pages than allowed.</summary>
    TooManyPages,

    /// <summary>Reading it took too long.</summary>
    TooSlow,

    /// <summary>Reading it takes more memory than a document may have.</summary>
    TooHeavy,

    /// <summary>It ends whatever reads it.</summary>
    Unreadable,
}
