using Zendle.Server.Corpus;
using Zendle.Server.Events;
using Zendle.Store.Corpus;

namespace Zendle.Server.Reviews;

/// <summary>
/// Changes the corpus: writes, puts the words in, makes it visible, finds again what reviews had lost, and tells
/// everyone. Whoever changes the corpus goes through here (a test holds that), so that no step of the five is left out.
/// </summary>
internal sealed class CorpusChange(CorpusService corpus, MadeOn madeOn, StartUp start, EventHub hub)
{
    /// <summary>
    /// Writes one page of many and puts its words in; it is seen after <see cref="Show"/>. A kill in between loses
    /// nothing: the next start shows it.
    /// </summary>
    /// <param name="write">Writes the page.</param>
    /// <param name="cancel">Stops before it is written.</param>
    public Task<PageResult> Take(Func<Task<PageResult>> write, CancellationToken cancel) => corpus.Take(write, cancel);

    /// <summary>Makes a change that is small, and shows it at once.</summary>
    /// <param name="write">Writes it. What it throws is thrown on, and nothing is shown.</param>
    /// <param name="cancel">Stops before it is shown; what was written is shown with the next change.</param>
    public async Task Make(Func<Task> write, CancellationToken cancel)
    {
        await write();
        await ShowNow(isLast: true, cancel);
    }

    /// <summary>Makes a change that may turn out to be none, and shows it where it is one.</summary>
    /// <param name="write">Writes it; tells how much of it was new.</param>
    /// <param name="cancel">Stops before it is shown.</param>
    public async Task MakeIfAny(Func<Task<int>> write, CancellationToken cancel)
    {
        if (await write() > 0)
            await ShowNow(isLast: true, cancel);
    }

    /// <summary>
    /// Shows what was written page by page, looks for works that reviews had lost, and tells everyone. While the demo is
    /// made, its last small change shows everything at once; only what was lost is looked for.
    /// </summary>
    /// <param name="isLast">Whether no more is coming: then lost works are looked for by their titles, too.</param>
    /// <param name="cancel">Stops.</param>
    public Task Show(bool isLast, CancellationToken cancel) =>
        start.IsSeeding && madeOn.LostCount == 0 ? Task.CompletedTask : ShowNow(isLast, cancel);

    private async Task ShowNow(bool isLast, CancellationToken cancel)
    {
        await corpus.Refresh(cancel);
        if (madeOn.LostCount > 0)
        {
            int found;
            using (var snapshot = corpus.Snapshot())
                found = await madeOn.FindAgain(snapshot, byTitle: isLast, cancel);
            // References that people said mean one of them are ties again.
            if (found > 0)
                await corpus.Refresh(cancel);
        }
        Tell();
    }

    /// <summary>Tells everyone that the corpus is another one.</summary>
    public void Tell() => hub.Tell(new("corpus"));
}
