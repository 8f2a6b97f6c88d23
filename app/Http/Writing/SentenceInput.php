<?php

declare(strict_types=1);

namespace App\Http\Writing;

use Illuminate\Foundation\Http\FormRequest;

final class SentenceInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['text' => 'present|nullable|string|max:2000', 'on' => 'sometimes|nullable|string'];
    }
}
