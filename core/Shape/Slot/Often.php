<?php

declare(strict_types=1);

namespace VividLedger\Shape\Slot;

use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Typed;
use VividLedger\Shape\Worded;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** How often something is done, from once: "once", "twice", "3 times". */
final readonly class Often implements Worded
{
    private const WORDS = [1 => 'once', 2 => 'twice'];

    /** @param  string  $label  of the editor: "How many reminders at most" */
    public function __construct(private int $most, private string $label)
    {
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return is_int($json) && $json >= 1 ? self::said($json) : null;
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        foreach (self::WORDS as $times => $word) {
            $end = $typed->words($at, $word);
            if ($end !== null) {
                return [new Parsed($times, $end)];
            }
        }
        $found = [];
        foreach ((new Counted(1, $this->most))->parse($typed, $at, $scope, $around) as $number) {
            $end = $typed->words($number->end, 'times') ?? $typed->words($number->end, 'time');
            if ($end !== null) {
                $found[] = new Parsed($number->json, $end, $number->cost);
            }
        }

        return $found;
    }

    public function read(Context $context, Node $node, Filled $around): ?int
    {
        $editor = $this->editor();
        if (! is_int($node->raw) || $node->raw < 1 || $node->raw > $this->most) {
            return $context->gap('how often', $node->at, $editor, 'missing', Words::say(
                'Give a whole number from {least} to {most}.', least: 1, most: $this->most,
            ));
        }
        $context->word(self::said($node->raw), WordRole::Value, $node->at, $editor);

        return $node->raw;
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
    }

    public function schema(): array
    {
        return ['type' => 'integer', 'minimum' => 1, 'maximum' => $this->most];
    }

    public function editor(): Editor
    {
        return Editor::number($this->label, 1, $this->most);
    }

    private static function said(int $times): string
    {
        return self::WORDS[$times] ?? "{$times} times";
    }
}
