<?php

declare(strict_types=1);

namespace App\Http\Rules;

use OpenApi\Attributes as OA;
use VividLedger\Explain\Kept;
use VividLedger\Explain\OutcomeSentence;

/** What one line did: in a sentence, and in the words it is made of. */
#[OA\Schema]
final readonly class OutcomeShape
{
    public function __construct(
        #[OA\Property]
        public string $kind,
        #[OA\Property]
        public string $said,
        #[OA\Property(description: 'Of a field: its label.')]
        public string $label,
        #[OA\Property]
        public string $before,
        #[OA\Property]
        public string $after,
        #[OA\Property(description: 'Of a field: whether it had another value.')]
        public bool $changed,
        #[OA\Property(description: 'Another record that it was done to; empty for the own one.')]
        public string $on,
        #[OA\Property(description: 'Of a task: its title.')]
        public string $title,
        #[OA\Property]
        public ?string $person,
        #[OA\Property]
        public ?string $due,
        #[OA\Property(description: 'How somebody was found.')]
        public string $path,
    ) {
    }

    /** @param  Kept  $did  in words */
    public static function of(Kept $did): self
    {
        $orNull = static fn (string $text): ?string => $text === '' ? null : $text;

        return new self(
            $did->text('kind'), OutcomeSentence::of($did), $did->text('label'), $did->text('before'), $did->text('after'),
            $did->is('changed'),
            $did->text('on'), $did->text('title'), $orNull($did->text('person')), $orNull($did->text('due')), $did->text('path'),
        );
    }
}
