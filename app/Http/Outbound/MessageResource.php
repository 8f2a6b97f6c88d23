<?php

declare(strict_types=1);

namespace App\Http\Outbound;

use OpenApi\Attributes as OA;

/** A message that a rule sent. */
#[OA\Schema]
final readonly class MessageResource
{
    /**
     * @param  list<string>  $to
     * @param  list<string>  $cc
     */
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property(enum: ['email', 'sms', 'app'])]
        public string $channel,
        #[OA\Property(enum: ['waiting', 'delivered', 'failed'])]
        public string $status,
        #[OA\Property]
        public string $recordType,
        #[OA\Property]
        public int $recordId,
        #[OA\Property]
        public string $recordNumber,
        #[OA\Property]
        public string $recordTitle,
        #[OA\Property]
        public ?int $rule,
        #[OA\Property]
        public ?string $ruleName,
        #[OA\Property]
        public int $entry,
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
        #[OA\Property(format: 'date-time')]
        public string $createdAt,
        #[OA\Property(format: 'date-time', nullable: true)]
        public ?string $doneAt,
        #[OA\Property]
        public int $tries,
        #[OA\Property]
        public string $trouble,
    ) {
    }
}
