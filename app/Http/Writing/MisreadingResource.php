<?php

declare(strict_types=1);

namespace App\Http\Writing;

use OpenApi\Attributes as OA;

/** Something in a text that was not understood. */
#[OA\Schema]
final readonly class MisreadingResource
{
    /**
     * @param  list<string>  $expected
     * @param  list<string>  $offers
     */
    public function __construct(
        #[OA\Property(description: 'Of the text, from 1.')]
        public int $line,
        #[OA\Property(description: 'In the line, in characters from 0.')]
        public int $position,
        #[OA\Property]
        public string $word,
        #[OA\Property]
        public string $message,
        #[OA\Property(items: new OA\Items(type: 'string'))]
        public array $expected,
        #[OA\Property(description: 'What of that can be typed as it is.', items: new OA\Items(type: 'string'))]
        public array $offers,
        #[OA\Property(description: 'What the word is probably meant to be.', nullable: true)]
        public ?string $meant,
    ) {
    }
}
