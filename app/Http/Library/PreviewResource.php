<?php

declare(strict_types=1);

namespace App\Http\Library;

use OpenApi\Attributes as OA;

/** A message as it would go out for one record. */
#[OA\Schema]
final readonly class PreviewResource
{
    /**
     * @param  list<string>  $to
     * @param  list<string>  $cc
     * @param  list<string>  $missing
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: 'string'))]
        public array $to,
        #[OA\Property(items: new OA\Items(type: 'string'))]
        public array $cc,
        #[OA\Property]
        public ?string $replyTo,
        #[OA\Property]
        public string $subject,
        #[OA\Property]
        public string $html,
        #[OA\Property]
        public string $text,
        #[OA\Property]
        public string $path,
        #[OA\Property(items: new OA\Items(type: 'string'))]
        public array $missing,
        #[OA\Property]
        public ?string $trouble,
    ) {
    }
}
