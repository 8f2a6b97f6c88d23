<?php

declare(strict_types=1);

namespace App\Http\People;

use App\Models\People\Person;
use OpenApi\Attributes as OA;

/** How somebody wants the screens. */
#[OA\Schema]
final readonly class PreferencesResource
{
    public function __construct(
        #[OA\Property(description: 'By day or by night; null for the wish of the system.', enum: ['light', 'dark'], nullable: true)]
        public ?string $scheme,
        #[OA\Property(description: 'How much contrast; null for the wish of the system.', enum: ['usual', 'more'], nullable: true)]
        public ?string $contrast,
        #[OA\Property(description: 'Whether they have been shown around, or wanted not to be.')]
        public bool $toured,
    ) {
    }

    public static function of(Person $person): self
    {
        $chosen = $person->preferences ?? [];

        return new self($chosen['scheme'] ?? null, $chosen['contrast'] ?? null, (bool) ($chosen['toured'] ?? false));
    }
}
