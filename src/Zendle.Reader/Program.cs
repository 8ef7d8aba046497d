using System.Globalization;
using Zendle.Documents;
using Zendle.Documents.Reading;

// Reads documents for Zendle, which cannot trust them and so does not read them itself: see ReaderProcess. Ends when
// nobody asks any more.
var limits = new DocumentLimits(
    int.Parse(args[0], CultureInfo.InvariantCulture),
    TimeSpan.FromMilliseconds(int.Parse(args[1], CultureInfo.InvariantCulture))
);
using var asked = Console.OpenStandardInput();
using var answer = Console.OpenStandardOutput();
while (ReaderProtocol.Question(asked) is var (what, bytes))
{
    if (!ReaderProtocol.Answer(answer, what, bytes, limits))
        return 1;
}
return 0;
