<?php

declare(strict_types=1);

namespace App\Http\Outbound;

use Illuminate\Foundation\Http\FormRequest;

final class CallListInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'status' => 'sometimes|in:waiting,succeeded,failed', 'endpoint' => 'sometimes|string|max:60',
            'limit' => 'sometimes|integer|min:1|max:200',
        ];
    }
}
