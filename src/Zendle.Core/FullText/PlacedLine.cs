namespace Zendle.Core.FullText;

/// <summary>A line of a document with where it stands. Lengths are points, from the lower left corner of its page.</summary>
/// <param name="Text">Its words, without a number in the margin.</param>
/// <param name="Page">Its page, from 1.</param>
/// <param name="Left">Where it begins.</param>
/// <param name="Right">Where it ends.</param>
/// <param name="Base">The height its letters stand on.</param>
/// <param name="Size">Size of its largest letter.</param>
/// <param name="Bold">Whether it is set in bold.</param>
public sealed record PlacedLine(string Text, int Page, double Left, double Right, double Base, double Size, bool Bold);
