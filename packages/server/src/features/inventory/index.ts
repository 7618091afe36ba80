export { type InventoryService, makeInventoryService } from './inventoryService.ts';
