<script lang="ts">
    import { api, ask } from '../api/client';
    import type { Document } from '../state/document.svelte';
    import Say from './Say.svelte';

    let { page }: { page: Document } = $props();
</script>

<Say
    label="Write a line"
    placeholder="Write a line: “after 2 working days remind the owner’s manager”"
    read={(text) => ask(api.POST('/api/text/line', { body: { text, on: page.type } }))}
    take={async (line) => void (await page.append('/lines', line))}
/>
