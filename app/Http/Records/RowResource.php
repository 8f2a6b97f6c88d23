<?php

declare(strict_types=1);

namespace App\Http\Records;

use App\Http\Writing\WordResource;
use OpenApi\Attributes as OA;

/** One row of a rule page. */
#[OA\Schema]
final readonly class RowResource
{
    /**
     * @param  list<WordResource>  $words
     */
    public function __construct(
        #[OA\Property(enum: ['when', 'group', 'condition', 'fires', 'line', 'until', 'never'])]
        public string $part,
        #[OA\Property]
        public string $at,
        #[OA\Property]
        public string $margin,
        #[OA\Property]
        public int $depth,
        #[OA\Property(description: 'How many cases it stands in.')]
        public int $indent,
        #[OA\Property(description: 'Whether it is the heading of a case.')]
        public bool $heading,
        #[OA\Property(description: 'Whether the line is switched off.')]
        public bool $off,
        #[OA\Property(description: 'How many seconds after the firing the line comes, where that is known beforehand.', nullable: true)]
        public ?int $after,
        #[OA\Property(description: 'When the line is done, as a word that can be changed.', nullable: true)]
        public ?WordResource $when,
        #[OA\Property(items: new OA\Items(type: WordResource::class))]
        public array $words,
    ) {
    }
}
