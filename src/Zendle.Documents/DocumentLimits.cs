namespace Zendle.Documents;

/// <summary>What a PDF may cost before it is given up.</summary>
/// <param name="Pages">Most pages.</param>
/// <param name="Time">Most time for reading it.</param>
public sealed record DocumentLimits(int Pages, TimeSpan Time)
{
    /// <summary>The usual limits: more pages than any thesis has, more time than any of them takes.</summary>
    public static DocumentLimits Usual { get; } = new(2_000, TimeSpan.FromSeconds(30));

    /// <summary>Most managed memory of the process that reads it, in bytes.</summary>
    public long Heap { get; init; } = 768L << 20;

    /// <summary>Most memory of that process in all, in bytes.</summary>
    public long Memory { get; init; } = 1_100L << 20;

    /// <summary>How much longer than <see cref="Time"/> that process may be silent before it is ended.</summary>
    public TimeSpan Grace { get; init; } = TimeSpan.FromSeconds(5);

    /// <summary>Most letters on one page.</summary>
    public int LettersOnPage { get; init; } = 400_000;
}

/// <summary>A file that is no readable PDF; the message is a sentence for a person.</summary>
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

/// <summary>What can be wrong with a PDF.</summary>
public enum DocumentFault
{
    /// <summary>Nothing in it.</summary>
    Empty,

    /// <summary>It does not begin as a PDF does.</summary>
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
