<?php

declare(strict_types=1);

namespace App\Http\Inbound;

use Illuminate\Foundation\Http\FormRequest;

final class MailRoomInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'search' => 'nullable|string|max:200', 'before' => 'nullable|integer|min:0',
            'after' => 'nullable|integer|min:0|prohibits:before',
        ];
    }
}
