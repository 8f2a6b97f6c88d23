<?php

declare(strict_types=1);

namespace App\Http\Rules;

use OpenApi\Attributes as OA;
use VividLedger\Explain\Kept;
use VividLedger\Explain\OutcomeSentence;

/** What one line did: in a sentence, and in the words it is made of. */
#[OA\Schema]
final readonly class OutcomeResource
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
            kind: $did->text('kind'), said: OutcomeSentence::of($did), label: $did->text('label'), before: $did->text('before'),
            after: $did->text('after'), changed: $did->is('changed'), on: $did->text('on'), title: $did->text('title'),
            person: $orNull($did->text('person')), due: $orNull($did->text('due')), path: $did->text('path'),
        );
    }
}
