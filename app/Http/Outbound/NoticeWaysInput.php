<?php

declare(strict_types=1);

namespace App\Http\Outbound;

use App\Models\Outbound\NoticeKind;
use App\Models\Outbound\NoticeWay;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

final class NoticeWaysInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return array_fill_keys(
            array_map(static fn (NoticeKind $kind): string => $kind->value, NoticeKind::cases()),
            ['sometimes', 'string', Rule::enum(NoticeWay::class)],
        );
    }
}
