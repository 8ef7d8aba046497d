using System.Globalization;
using Zendle.Documents.Pdf;

// Reads documents for Zendle, which cannot trust them and so does not read them itself: see ReaderProcess. Ends when
// nobody asks any more.
var limits = new PdfLimits(
    int.Parse(args[0], CultureInfo.InvariantCulture),
    TimeSpan.FromMilliseconds(int.Parse(args[1], CultureInfo.InvariantCulture))
);
using var asked = Console.OpenStandardInput();
using var answer = Console.OpenStandardOutput();
while (ReaderProtocol.Question(asked) is { } bytes)
{
    if (!ReaderProtocol.Answer(answer, bytes, limits))
        return 1;
}
return 0;
