<?php

declare(strict_types=1);

namespace VividLedger\Shape;

/**
 * Labels that can stand at a place of a typed text, found by their first word.
 *
 * @template-covariant T
 */
final class LabelSet
{
    /**
     * @var array<string, list<array{string, string, T}>> by the first word: the label in small letters, as it is, and what it stands for
     */
    private array $byWord = [];

    /** @param  array<string, T>  $labels  what each stands for */
    public function __construct(public readonly array $labels)
    {
        foreach ($labels as $label => $value) {
            $small = Typed::small(str_replace(["'", "\u{2018}"], '’', (string) $label));
            foreach (array_unique([$small, (string) preg_replace('/^(?:an?|the) /', '', $small)]) as $form) {
                $this->byWord[Typed::firstWord($form, 0)][] = [$form, (string) $label, $value];
            }
        }
    }

    /** @return list<array{string, string, T}> */
    public function beginning(string $word): array
    {
        return $this->byWord[$word] ?? [];
    }
}
