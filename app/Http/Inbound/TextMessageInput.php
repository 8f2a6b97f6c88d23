<?php

declare(strict_types=1);

namespace App\Http\Inbound;

use Illuminate\Foundation\Http\FormRequest;

final class TextMessageInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['to' => 'required|string|max:60', 'text' => 'required|string|max:5000'];
    }
}
