import { Op, type Sequelize } from 'sequelize';
import { ImportModel } from '../db/models.ts';
import type { ImportStore } from './importStore.ts';

export function makeSequelizeImportStore(sequelize: Sequelize): ImportStore {
  return {
    async put(reply, running) {
      await ImportModel.upsert({ id: reply.id, reply, running });
    },
    async interrupt(change) {
      return sequelize.transaction(async (transaction) => {
        const rows = await ImportModel.findAll({
          where: { running: true },
          transaction,
          lock: transaction.LOCK.UPDATE,
        });
        for (const row of rows)
          await row.update({ reply: { ...row.reply, ...change }, running: false }, { transaction });
        return rows.map((row) => row.reply);
      });
    },
    async drop(before) {
      await ImportModel.destroy({ where: { running: false, updatedAt: { [Op.lt]: before } } });
    },
  };
}
