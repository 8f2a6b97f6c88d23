<?php

declare(strict_types=1);

namespace App\Http\Outbound;

use OpenApi\Attributes as OA;

/** What the bell tells somebody, the newest first. */
#[OA\Schema]
final readonly class NoticesResource
{
    /** @param  list<NoticeResource>  $notices */
    public function __construct(
        #[OA\Property(description: 'How many came since they last looked.')]
        public int $new,
        #[OA\Property(items: new OA\Items(type: NoticeResource::class))]
        public array $notices,
    ) {
    }
}
