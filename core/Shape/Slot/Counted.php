<?php

declare(strict_types=1);

namespace VividLedger\Shape\Slot;

use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\LabelSet;
use VividLedger\Shape\Node;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Typed;
use VividLedger\Shape\Worded;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** A whole number: "3", "three". */
final readonly class Counted implements Worded
{
    public const WORDS = [
        'one' => 1, 'two' => 2, 'three' => 3, 'four' => 4, 'five' => 5, 'six' => 6, 'seven' => 7, 'eight' => 8, 'nine' => 9, 'ten' => 10,
        'eleven' => 11, 'twelve' => 12, 'fourteen' => 14, 'fifteen' => 15, 'twenty' => 20, 'thirty' => 30, 'sixty' => 60, 'ninety' => 90,
    ];

    public function __construct(
        private int $least = 0,
        private ?int $most = null,
        private bool $isTextToo = false,
        private string $label = 'How often',
    ) {
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return is_int($json) && $json >= 0 ? (string) $json : null;
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $digits = $typed->pattern($at, '\d{1,9}(?!\d)', 'a number');
        if ($digits !== null) {
            return [new Parsed((int) $digits[0][0], $digits[1])];
        }

        return array_map(
            static fn (array $found): Parsed => new Parsed($found[0], $found[1], 1),
            array_slice($typed->labels($at, self::words(), 2), 0, 1),
        );
    }

    public function read(Context $context, Node $node, Filled $around): ?int
    {
        $editor = Editor::number($this->label, $this->least, $this->most);
        $number = $this->isTextToo && is_string($node->raw) && preg_match('/^\d{1,9}$/D', $node->raw) === 1 ? (int) $node->raw : $node->raw;
        if (! is_int($number) || $number < $this->least || ($this->most !== null && $number > $this->most)) {
            return $context->gap('how often', $node->at, $editor, 'missing', $this->most === null
                ? Words::say('Give a whole number of {least} or more.', least: $this->least)
                : Words::say('Give a whole number from {least} to {most}.', least: $this->least, most: $this->most));
        }
        $context->word((string) $number, WordRole::Value, $node->at, $editor);

        return $number;
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
    }

    public function schema(): array
    {
        return $this->isTextToo ? ['type' => ['integer', 'string']] : [
            'type' => 'integer', 'minimum' => $this->least,
        ] + ($this->most === null ? [] : ['maximum' => $this->most]);
    }

    /** @return LabelSet<int> */
    public static function words(): LabelSet
    {
        static $words = null;

        return $words instanceof LabelSet ? $words : $words = new LabelSet(self::WORDS);
    }
}
