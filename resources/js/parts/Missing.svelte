<script lang="ts">
    import { crumbs } from '../state/crumbs.svelte';

    crumbs.set({ label: 'Not found' });
</script>

<div class="spread">
    <section class="leaf solo">
        <div class="empty">
            <h2>There is nothing at this address.</h2>
            <p>It may have been mistyped, or what was here is gone.</p>
            <p class="mt-4"><a class="btn" href="/">Go to Today</a></p>
        </div>
    </section>
</div>
