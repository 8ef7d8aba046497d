using Lucene.Net.Analysis;
using Lucene.Net.Analysis.TokenAttributes;
using Zendle.Core.Text;

namespace Zendle.Index.Text;

/// <summary>
/// Feeds our words to the text index. Values of one field stand a wide gap apart, so that neither phrase nor NEAR
/// crosses them. One stream serves record after record: to make one takes longer than to cut a title into words.
/// </summary>
internal sealed class WordsTokenStream : TokenStream
{
    /// <summary>Words between the values of a field; wider than any distance NEAR can ask for.</summary>
    public const int ValueGap = 20_000;

    private readonly ICharTermAttribute term;
    private readonly IPositionIncrementAttribute increment;
    private readonly List<(string Text, int Increment)> words = [];
    private int next;

    public WordsTokenStream()
    {
        term = AddAttribute<ICharTermAttribute>();
        increment = AddAttribute<IPositionIncrementAttribute>();
    }

    /// <summary>How many words there are, closed forms not counted.</summary>
    public int Count { get; private set; }

    /// <summary>Takes the values of a field, in place of those before.</summary>
    public void Take(IEnumerable<string> values)
    {
        words.Clear();
        (next, Count) = (0, 0);
        var last = -1;
        var offset = 0;
        foreach (var value in values)
        {
            foreach (var word in Words.Of(value))
            {
                var position = offset + word.Position;
                words.Add((word.Text, position - last));
                last = position;
                if (!word.IsClosedForm)
                    Count++;
            }
            offset = last + ValueGap;
        }
    }

    public override bool IncrementToken()
    {
        if (next >= words.Count)
            return false;
        // Both attributes are set for every word, so there is nothing to clear.
        term.SetEmpty().Append(IndexFields.Cut(words[next].Text));
        increment.PositionIncrement = words[next].Increment;
        next++;
        return true;
    }

    public override void Reset()
    {
        base.Reset();
        next = 0;
    }
}
