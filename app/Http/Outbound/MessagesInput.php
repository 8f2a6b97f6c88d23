<?php

declare(strict_types=1);

namespace App\Http\Outbound;

use Illuminate\Foundation\Http\FormRequest;

final class MessagesInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'status' => 'nullable|in:waiting,delivered,failed,all', 'before' => 'nullable|integer|min:0',
            'after' => 'nullable|integer|min:0|prohibits:before', 'limit' => 'nullable|integer|min:1|max:200',
        ];
    }
}
