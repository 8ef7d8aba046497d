namespace Zendle.Core.Reviews.Acts;

/// <summary>An act that was written down cannot be read.</summary>
/// <param name="why">What is wrong with it.</param>
public sealed class UnreadableActException(Exception why)
    : Exception("One step cannot be read: it is damaged, or was written by a later version of Zendle.", why);
