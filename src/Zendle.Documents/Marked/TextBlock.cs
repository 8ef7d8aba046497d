using AngleSharp.Dom;

namespace Zendle.Documents.Marked;

/// <summary>What a piece of a marked-up text is.</summary>
internal enum BlockKind
{
    /// <summary>A heading.</summary>
    Heading,

    /// <summary>A paragraph of running text.</summary>
    Paragraph,

    /// <summary>An item of a list, a cell of a table, a caption.</summary>
    Aside,

    /// <summary>An entry of a list of references.</summary>
    Entry,
}

/// <summary>A piece of a marked-up text that stands by itself.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="Level">Of a heading: 1 to 6.</param>
/// <param name="Text">Its words, with single blanks.</param>
/// <param name="Element">The element that it is.</param>
internal sealed record TextBlock(BlockKind Kind, int Level, string Text, IElement Element);
